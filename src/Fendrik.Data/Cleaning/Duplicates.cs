using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Core.Matching;
using Fendrik.Core.Reporting;
using Fendrik.Data.Sheets;
using Npgsql;

namespace Fendrik.Data.Cleaning;

/// <summary>Where duplicates are looked for.</summary>
public enum DuplicateScope
{
    /// <summary>Only in the same ad group.</summary>
    AdGroup = 1,

    /// <summary>In the same campaign.</summary>
    Campaign = 2,

    /// <summary>In the whole account.</summary>
    Account = 3,
}

/// <summary>What counts as a duplicate.</summary>
/// <param name="Sense">How far the words may differ.</param>
/// <param name="Scope">Where they are looked for.</param>
/// <param name="AcrossMatchTypes">True when two match types of the same words are duplicates too.</param>
public sealed record DuplicateRequest(DuplicateSense Sense, DuplicateScope Scope, bool AcrossMatchTypes);

/// <summary>One keyword among its duplicates, with what it brought.</summary>
public sealed record DuplicateKeyword(
    long Id,
    string Text,
    MatchType Match,
    ItemState State,
    decimal? MaxCpc,
    string Campaign,
    string AdGroup,
    long CampaignId,
    long AdGroupId,
    Figures Figures,
    decimal? CostPerConversion
);

/// <summary>Keywords that are each other's duplicates, the one that is worth keeping first.</summary>
/// <param name="Form">What they have in common: their form, or the search that each of them may answer.</param>
/// <param name="Keywords">The keywords.</param>
public sealed record DuplicateSet(string Form, IReadOnlyList<DuplicateKeyword> Keywords);

/// <summary>What was found.</summary>
/// <param name="Sets">Number of sets.</param>
/// <param name="Spare">Number of keywords that could go, all but one of each set; none where only searches are shared.</param>
/// <param name="Shown">The sets that cost most, worst first.</param>
public sealed record DuplicateReport(int Sets, int Spare, IReadOnlyList<DuplicateSet> Shown);

/// <summary>Finds keywords that say the same, or compete for the same searches.</summary>
public sealed class Duplicates(NpgsqlDataSource source)
{
    private const int MostShown = 200;

    public async Task<DuplicateReport> FindAsync(
        int accountId,
        DuplicateRequest request,
        CancellationToken cancellation
    )
    {
        await using var connection = await source.OpenConnectionAsync(cancellation);
        var ground = await SheetReader.GroundAsync(connection, accountId, new SheetRequest());
        if (request.Sense == DuplicateSense.SharedSearches)
        {
            var shared = await SharedSearches.FindAsync(connection, ground, request.Scope, cancellation);
            return new DuplicateReport(
                shared.Count,
                0,
                await ShowAsync(connection, ground, [.. shared.Take(MostShown)], request)
            );
        }

        // A million keywords go by once: what is kept of each is its form's hash and its number.
        var first = new Dictionary<UInt128, long>();
        var sets = new Dictionary<UInt128, List<long>>();
        var keywords = PlacedKeywords.ReadAsync(connection, accountId);
        await foreach (var keyword in keywords.WithCancellation(cancellation))
        {
            var place = request.Scope switch
            {
                DuplicateScope.AdGroup => keyword.AdGroupId,
                DuplicateScope.Campaign => keyword.CampaignId,
                DuplicateScope.Account => 0,
            };
            var key = Fingerprint.Of(
                KeywordForm.Of(keyword.Text, request.Sense),
                place,
                request.AcrossMatchTypes ? 0 : (short)keyword.MatchType
            );
            if (first.TryAdd(key, keyword.Id))
            {
                continue;
            }

            if (!sets.TryGetValue(key, out var set))
            {
                sets[key] = set = [first[key]];
            }

            set.Add(keyword.Id);
        }

        var spare = sets.Values.Sum(set => set.Count - 1);
        return new DuplicateReport(
            sets.Count,
            spare,
            await ShowAsync(connection, ground, [.. sets.Values.Select(set => new KeywordSet(null, set))], request)
        );
    }

    private static async Task<IReadOnlyList<DuplicateSet>> ShowAsync(
        NpgsqlConnection connection,
        SheetGround ground,
        IReadOnlyList<KeywordSet> sets,
        DuplicateRequest request
    )
    {
        if (sets.Count == 0)
        {
            return [];
        }

        var figures = await KeywordFigures.ReadAsync(
            connection,
            ground,
            [.. sets.SelectMany(set => set.Ids).Distinct()]
        );
        decimal CostOf(long id) => figures.GetValueOrDefault(id, Figures.Zero).Cost;
        var shown =
            request.Sense == DuplicateSense.SharedSearches
                ? sets
                :
                [
                    .. sets.OrderByDescending(set => set.Ids.Sum(CostOf))
                        .ThenByDescending(set => set.Ids.Count)
                        .Take(MostShown),
                ];
        var rows = (
            await RowsAsync(connection, ground.AccountId, figures, [.. shown.SelectMany(set => set.Ids).Distinct()])
        ).ToDictionary(row => row.Id);
        return
        [
            .. shown.Select(set =>
            {
                var keywords = set.Ids.Where(rows.ContainsKey).Select(id => rows[id]).ToArray();
                return new DuplicateSet(
                    set.Form ?? (keywords.Length == 0 ? "" : KeywordForm.Of(keywords[0].Text, request.Sense)),
                    [.. keywords.OrderByDescending(Worth).ThenBy(keyword => keyword.Id)]
                );
            }),
        ];
    }

    /// <summary>Most conversions first, then fewest cost for them, then most clicks: what has proved itself stays.</summary>
    private static (decimal, decimal, long) Worth(DuplicateKeyword keyword) =>
        (
            keyword.Figures.Conversions,
            keyword.Figures.Conversions > 0 ? -(keyword.CostPerConversion ?? 0) : 0,
            keyword.Figures.Clicks
        );

    private static async Task<IEnumerable<DuplicateKeyword>> RowsAsync(
        NpgsqlConnection connection,
        int accountId,
        Dictionary<long, Figures> figures,
        long[] ids
    )
    {
        var rows = await connection.QueryAsync<Row>(
            """
            select k.id, k.text, k.match_type, k.state, coalesce(k.max_cpc, g.max_cpc) as max_cpc, c.name as campaign, g.name as ad_group, c.id as campaign_id, g.id as ad_group_id
            from keyword k join ad_group g on g.id = k.ad_group_id join campaign c on c.id = g.campaign_id
            where k.id = any(@ids) and k.account_id = @accountId
            """,
            new { accountId, ids }
        );
        return rows.Select(row =>
        {
            var brought = figures.GetValueOrDefault(row.Id, Figures.Zero);
            return new DuplicateKeyword(
                row.Id,
                row.Text,
                row.MatchType,
                row.State,
                row.MaxCpc,
                row.Campaign,
                row.AdGroup,
                row.CampaignId,
                row.AdGroupId,
                brought,
                brought.CostPerConversion
            );
        });
    }

    [method: ExplicitConstructor]
    private sealed record Row(
        long Id,
        string Text,
        MatchType MatchType,
        ItemState State,
        decimal? MaxCpc,
        string Campaign,
        string AdGroup,
        long CampaignId,
        long AdGroupId
    );
}
