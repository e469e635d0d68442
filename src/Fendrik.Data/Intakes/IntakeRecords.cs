using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Lists;
using Fendrik.Data.Model;
using Fendrik.Data.Tables;
using Npgsql;

namespace Fendrik.Data.Intakes;

/// <summary>What the reading of an intake goes by.</summary>
[method: ExplicitConstructor]
internal sealed record IntakeSettings(
    int AccountId,
    bool HasHeader,
    string[] Columns,
    bool ColumnsChosen,
    string? DefaultCampaign,
    string? DefaultAdGroup,
    MatchType BareMatch,
    MatchType NegativeMatch,
    RowIntent Intent,
    bool EmptyClears
)
{
    public ListDefaults Defaults => new(DefaultCampaign, DefaultAdGroup, BareMatch, NegativeMatch, Intent, EmptyClears);
}

/// <summary>Small queries about intakes that several places share.</summary>
internal static class IntakeRecords
{
    public static Task<IntakeSettings> LoadAsync(NpgsqlConnection connection, long intakeId) =>
        connection.QuerySingleAsync<IntakeSettings>(
            """
            select account_id, has_header, columns, columns_chosen, default_campaign, default_ad_group, bare_match, negative_match, intent, empty_clears
            from intake where id = @intakeId
            """,
            new { intakeId }
        );

    public static Task ClearStagingAsync(NpgsqlConnection connection, long intakeId) =>
        connection.ExecuteAsync("delete from intake_row where intake_id = @intakeId", new { intakeId });

    /// <summary>Text that can be kept and shown: a zero cannot be stored, other controls would only confuse.</summary>
    public static string WithoutControls(string text)
    {
        foreach (var character in text)
        {
            if (character is < ' ' or '\u007f' or UnreadableCell.Mark)
            {
                return new string([
                    .. text.Select(each => each is < ' ' or '\u007f' or UnreadableCell.Mark ? '·' : each),
                ]);
            }
        }

        return text;
    }
}
