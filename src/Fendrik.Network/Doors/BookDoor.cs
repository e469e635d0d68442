using Dapper;
using Fendrik.Core.Tracking.Books;
using Fendrik.Core.Tracking.Conversions;
using Fendrik.Network.Serving;
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
        var finder = new BookFinder(connection, account);
        var verdicts = new List<BookVerdict>(books.Lines.Count);
        foreach (var line in books.Lines)
        {
            cancellation.ThrowIfCancellationRequested();
            verdicts.Add(await VerdictAsync(connection, account, goals, finder, line));
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
        BookFinder finder,
        BookedConversion line
    )
    {
        if (goals.Actions.FirstOrDefault(each => each.Id == line.ActionId) is not { } action)
        {
            return BookVerdict.UnknownAction;
        }

        if (await finder.SearchOfAsync(line) is not { } search)
        {
            return line.From.Kind switch
            {
                BookKeyKind.Click => BookVerdict.UnknownClick,
                BookKeyKind.Call => BookVerdict.UnknownCall,
                BookKeyKind.Address => BookVerdict.UnknownAddress,
            };
        }

        var asked = new
        {
            account.Id,
            search,
            action = action.Id,
            line.Reference,
            at = line.At.ToUniversalTime(),
            // The books are heard of after what was reported last, so that the next report has them.
            told = account.Clock.AddSeconds(1).ToUniversalTime(),
        };
        if (await KnownAsync(connection, action, asked) is not { } known)
        {
            return line.IsTakenBack
                ? BookVerdict.NothingThere
                : await AddAsync(connection, account, goals, action, line, asked);
        }

        if (known.Reference is { } other && other != line.Reference && (line.IsTakenBack || !known.TakenBack))
        {
            // It counts once for a click, and the books have one of it already.
            return line.IsTakenBack ? BookVerdict.NothingThere : BookVerdict.OncePerClick;
        }

        var (value, verdict) =
            line.IsTakenBack ? (0, known.TakenBack ? BookVerdict.Known : BookVerdict.TakenBack)
            : known.TakenBack ? (line.Value ?? action.FixedValue ?? 0, BookVerdict.Counted)
            : line.Value is { } said && said != known.Value ? (said, BookVerdict.NewValue)
            : (known.Value, BookVerdict.Known);
        await SetAsync(connection, known, line, value, account, isNews: verdict != BookVerdict.Known);
        return verdict;
    }

    /// <summary>
    /// The conversion that a line is about: that of its reference, else one that a tag told of and no line has claimed yet, the nearest in time. Of what counts
    /// once for a click any that is there.
    /// </summary>
    private static Task<KnownRow?> KnownAsync(NpgsqlConnection connection, ConversionAction action, object asked)
    {
        var once = action.Counting switch
        {
            ConversionCounting.OneForClick => "true",
            ConversionCounting.Each => "reference = @Reference or reference is null",
        };
        return connection.QueryFirstOrDefaultAsync<KnownRow?>(
            $"""
            select ctid::text as row, value, taken_back, reference from conversion
            where account_id = @Id and search = @search and action_id = @action and ({once})
            order by (reference is not distinct from @Reference) desc, (reference is null) desc, taken_back desc, abs(extract(epoch from at - @at)) limit 1
            """,
            asked
        );
    }

    private static Task SetAsync(
        NpgsqlConnection connection,
        KnownRow known,
        BookedConversion line,
        decimal value,
        NetworkAccount account,
        bool isNews
    ) =>
        connection.ExecuteAsync(
            """
            update conversion set value = @value, taken_back = @IsTakenBack, reference = @Reference, told = case when @isNews then @told else told end
            where ctid = @Row::tid
            """,
            new
            {
                known.Row,
                value,
                line.IsTakenBack,
                line.Reference,
                isNews,
                told = account.Clock.AddSeconds(1).ToUniversalTime(),
            }
        );

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

    private sealed class KnownRow
    {
        public string Row { get; init; } = "";
        public decimal Value { get; init; }
        public bool TakenBack { get; init; }
        public string? Reference { get; init; }
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
