using Dapper;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Network.Serving;
using Fendrik.Network.Simulation;
using Npgsql;

namespace Fendrik.Network.Doors;

/// <summary>Where conversions from outside are told. Told twice, they are there once.</summary>
internal static class BookDoor
{
    private const int MostLines = 20_000;

    public static void Map(RouteGroupBuilder account) => account.MapPost("/books", TakeAsync);

    private static async Task<IResult> TakeAsync(
        string accountId,
        BookedConversions books,
        NetworkStore store,
        CancellationToken cancellation
    )
    {
        if (books.Lines.Count > MostLines)
        {
            return Results.Problem($"At most {MostLines:N0} at once.", statusCode: StatusCodes.Status400BadRequest);
        }

        await using var connection = await store.OpenAsync(cancellation);
        await using var transaction = await connection.BeginTransactionAsync(cancellation);
        if (await NetworkStore.FindAsync(connection, accountId, locking: true) is not { } account)
        {
            return Results.NotFound();
        }

        var goals = (await LiveAccounts.ReadAsync(connection, account)).Goals;
        var verdicts = new List<BookVerdict>(books.Lines.Count);
        foreach (var line in books.Lines)
        {
            cancellation.ThrowIfCancellationRequested();
            verdicts.Add(await VerdictAsync(connection, account, goals, line));
        }

        if (books.IsPreview)
        {
            await transaction.RollbackAsync(cancellation);
        }
        else
        {
            await transaction.CommitAsync(cancellation);
        }

        return Results.Ok(verdicts);
    }

    private static async Task<BookVerdict> VerdictAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        ConversionGoals goals,
        BookedConversion line
    )
    {
        if (goals.Actions.FirstOrDefault(each => each.Id == line.ActionId) is not { } action)
        {
            return BookVerdict.UnknownAction;
        }

        if (ClickIds.SearchOf(account.Seed, line.ClickId) is not { } search)
        {
            return BookVerdict.UnknownClick;
        }

        var asked = new
        {
            account.Id,
            search = (long)search,
            action = action.Id,
            line.Reference,
            // The books are heard of after what was reported last, so that the next report has them.
            told = account.Clock.AddSeconds(1).ToUniversalTime(),
        };
        // What the tag told of before is the same conversion: the books say what it came to.
        var known = await connection.QueryFirstOrDefaultAsync<(decimal Value, bool TakenBack, string? Reference)?>(
            """
            select value, taken_back, reference from conversion where account_id = @Id and search = @search and action_id = @action
              and (reference = @Reference or reference is null) order by reference nulls last limit 1
            """,
            asked
        );
        if (line.IsTakenBack)
        {
            if (known is null)
            {
                return BookVerdict.NothingThere;
            }

            return known.Value.TakenBack
                ? BookVerdict.Known
                : await SetAsync(connection, asked, 0, takenBack: true, BookVerdict.TakenBack);
        }

        if (known is { TakenBack: true })
        {
            return await SetAsync(
                connection,
                asked,
                line.Value ?? action.FixedValue ?? 0,
                takenBack: false,
                BookVerdict.Counted
            );
        }

        if (known is { } there)
        {
            return line.Value is not { } value || value == there.Value
                ? BookVerdict.Known
                : await SetAsync(connection, asked, value, takenBack: false, BookVerdict.NewValue);
        }

        return await AddAsync(connection, account, goals, action, line, asked);
    }

    private static async Task<BookVerdict> SetAsync(
        NpgsqlConnection connection,
        object asked,
        decimal value,
        bool takenBack,
        BookVerdict verdict
    )
    {
        var parameters = new DynamicParameters(asked);
        parameters.Add("value", value);
        parameters.Add("takenBack", takenBack);
        await connection.ExecuteAsync(
            """
            update conversion set value = @value, taken_back = @takenBack, reference = @Reference, told = @told
            where ctid = (select ctid from conversion where account_id = @Id and search = @search and action_id = @action
              and (reference = @Reference or reference is null) order by reference nulls last limit 1)
            """,
            parameters
        );
        return verdict;
    }

    private static async Task<BookVerdict> AddAsync(
        NpgsqlConnection connection,
        NetworkAccount account,
        ConversionGoals goals,
        ConversionAction action,
        BookedConversion line,
        object asked
    )
    {
        var click = await connection.QueryFirstOrDefaultAsync<ClickRow>(
            """
            select v.day, v.hour, v.campaign_id, v.ad_group_id, v.keyword_id, v.ad_id, v.device, v.site, v.term,
              coalesce((select to_timestamp(s.at) from shown s where s.account_id = v.account_id and s.search = v.search and s.click <> 0 limit 1), v.at) as clicked_at,
              (select i.item ->> 'goals' from item i where i.account_id = v.account_id and i.kind = 1 and i.item_id = v.campaign_id) as goals
            from visit v where v.account_id = @Id and v.search = @search limit 1
            """,
            asked
        );
        if (click is null)
        {
            return BookVerdict.UnknownClick;
        }

        var clickedAt = new DateTimeOffset(DateTime.SpecifyKind(click.ClickedAt, DateTimeKind.Utc));
        if (action.State == ItemState.Paused)
        {
            return BookVerdict.PausedAction;
        }

        if (!ConversionRule.IsWithin(action, line.At, clickedAt))
        {
            return BookVerdict.OutsideWindow;
        }

        var parameters = new DynamicParameters(asked);
        parameters.AddDynamicParams(
            new
            {
                click.Day,
                click.Hour,
                click.CampaignId,
                click.AdGroupId,
                click.KeywordId,
                click.AdId,
                click.Device,
                click.Site,
                click.Term,
                clickedAt = clickedAt.ToUniversalTime(),
                at = line.At.ToUniversalTime(),
                value = line.Value ?? action.FixedValue ?? 0,
                counts = ConversionGoals.Counts(action, click.Goals),
                steers = ConversionGoals.Steers(action, click.Goals),
            }
        );
        await connection.ExecuteAsync(
            """
            insert into conversion (account_id, day, hour, search, campaign_id, ad_group_id, keyword_id, ad_id, device, site, term, clicked_at, action_id, at, told, value, counts, steers, reference)
            values (@Id, @Day, @Hour, @search, @CampaignId, @AdGroupId, @KeywordId, @AdId, @Device, @Site, @Term, @clickedAt, @action, @at, @told, @value, @counts, @steers, @Reference)
            """,
            parameters
        );
        return BookVerdict.Counted;
    }

    private sealed class ClickRow
    {
        public DateOnly Day { get; init; }
        public short Hour { get; init; }
        public long CampaignId { get; init; }
        public long AdGroupId { get; init; }
        public long KeywordId { get; init; }
        public long AdId { get; init; }
        public short Device { get; init; }
        public short Site { get; init; }
        public string Term { get; init; } = "";
        public DateTime ClickedAt { get; init; }
        public string? Goals { get; init; }
    }
}
