using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using Dapper;
using Fendrik.Data.Items;
using Fendrik.Tests.Shared;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace Fendrik.Items.Tests;

public sealed class MadeUpFixture : IAsyncLifetime
{
    public ServerHost Host { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        Host = await ServerHost.StartAsync(otherwise: services =>
            services.ConfigureHttpJsonOptions(options =>
            {
                // A kind that is made up has no name in the enumeration, and goes by its number.
                options.SerializerOptions.Converters.Clear();
                options.SerializerOptions.Converters.Add(
                    new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: true)
                );
            })
        );
        await using var connection = new NpgsqlConnection(Host.Database);
        await connection.ExecuteAsync(ItemShape.Of(ItemTypes.Of(MadeUpType.Number)).Create());
    }

    public ValueTask DisposeAsync() => Host.DisposeAsync();
}

/// <summary>A kind that is only described goes through everything: the server, its database, files, the network stand-in.</summary>
public class MadeUpKindTests(MadeUpFixture fixture) : IClassFixture<MadeUpFixture>
{
    private const int Kind = (int)MadeUpType.Number;

    private async Task<(Visitor Visitor, string Path, int Account, NetworkVisitor Network)> AccountAsync()
    {
        var (account, visitor, network) = await fixture.Host.NewAccountAsync();
        var path = $"/api/accounts/{account}";
        await visitor.PostAsync(
            $"{path}/commands",
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "North", dailyBudget = "25" },
                place = new { },
            }
        );
        var campaign = (await RowsAsync(visitor, path, "campaign"))[0].GetProperty("id").GetInt64();
        await visitor.PostAsync(
            $"{path}/commands",
            new
            {
                type = "put",
                kind = Kind,
                values = new
                {
                    text = "First",
                    site = "https://gadget.example/first",
                    price = "1,234.50",
                    since = "2027-01-04",
                    mood = "phone",
                    shows = new[] { "search", "content" },
                    notes = new[] { "one", "two" },
                    campaignIds = new[] { $"{campaign}" },
                    labels = "spring; test",
                },
                place = new { },
            }
        );
        return (visitor, path, account, network);
    }

    private static async Task<JsonElement> RowsAsync(Visitor visitor, string path, object kind) =>
        (await visitor.PostAsync($"{path}/sheet", new { kind })).GetProperty("rows");

    private static async Task<JsonElement> GadgetAsync(Visitor visitor, string path) =>
        (await RowsAsync(visitor, path, Kind))[0];

    /// <summary>The whole rows, but for their numbers; a file says nothing of references but those of lists.</summary>
    private async Task<string> StateAsync(int account, bool references = true)
    {
        await using var connection = new NpgsqlConnection(fixture.Host.Database);
        return string.Join(
            '\n',
            await connection.QueryAsync<string>(
                "select (to_jsonb(g) - 'id' - 'account_id' - 'changed_by' - 'campaign_ids' - 'live' - 'is_live' - 'review')::text || case when @references then cardinality(campaign_ids) else 0 end from gadget g where account_id = @account and not removed order by id",
                new { account, references }
            )
        );
    }

    [Fact]
    public async Task Is_made_with_each_value_as_it_was_typed()
    {
        var (visitor, path, _, _) = await AccountAsync();

        var values = (await GadgetAsync(visitor, path)).GetProperty("values");

        values.GetProperty("price").GetDecimal().ShouldBe(1234.50m);
        values.GetProperty("since").GetString().ShouldBe("2027-01-04");
        values.GetProperty("mood").GetString().ShouldBe("phone");
        values.GetProperty("shows").GetRawText().ShouldBe("""["search","content"]""");
        values.GetProperty("notes").GetRawText().ShouldBe("""["one","two"]""");
        values.GetProperty("campaignIds").GetArrayLength().ShouldBe(1);
        values.GetProperty("labels").GetRawText().ShouldBe("""["spring","test"]""");
    }

    [Theory]
    [InlineData("text", "Second", "\"Second\"")]
    [InlineData("site", "https://gadget.example/second", "\"https://gadget.example/second\"")]
    [InlineData("price", "+10%", "1357.950")]
    [InlineData("since", "2027-02-01", "\"2027-02-01\"")]
    [InlineData("mood", "tablet", "\"tablet\"")]
    [InlineData("shows", "partners", "[\"partners\"]")]
    [InlineData("notes", "a | b | c", "[\"a\",\"b\",\"c\"]")]
    [InlineData("labels", "autumn", "[\"autumn\"]")]
    public async Task Is_edited_in_each_cell_by_a_paste_and_taken_back(string field, string text, string now)
    {
        var (visitor, path, account, _) = await AccountAsync();
        var before = await StateAsync(account);
        var row = await GadgetAsync(visitor, path);

        await visitor.PostAsync(
            $"{path}/commands",
            new
            {
                type = "setCells",
                cells = new[]
                {
                    new
                    {
                        item = new { kind = Kind, id = row.GetProperty("id").GetInt64() },
                        field,
                        text,
                    },
                },
            }
        );

        (await GadgetAsync(visitor, path)).GetProperty("values").GetProperty(field).GetRawText().ShouldBe(now);
        var history = await visitor.ReadAsync($"{path}/history");
        var step = await visitor.ReadAsync($"{path}/history/{history[0].GetProperty("id").GetInt64()}");
        step[0].GetProperty("differences").GetArrayLength().ShouldBe(1);
        await visitor.PostAsync($"{path}/undo");
        (await StateAsync(account)).ShouldBe(before);
    }

    [Fact]
    public async Task Is_copied_with_another_text_and_removed()
    {
        var (visitor, path, _, _) = await AccountAsync();

        await visitor.PostAsync(
            $"{path}/commands",
            new
            {
                type = "copy",
                where = new { kind = Kind },
                place = new { campaignIds = Array.Empty<long>(), adGroupIds = Array.Empty<long>() },
                edits = new { replace = new[] { new { find = "First", value = "Copy" } } },
            }
        );
        (await RowsAsync(visitor, path, Kind)).GetArrayLength().ShouldBe(2);
        await visitor.PostAsync($"{path}/commands", new { type = "remove", where = new { kind = Kind } });

        (await RowsAsync(visitor, path, Kind)).GetArrayLength().ShouldBe(0);
    }

    [Theory]
    [InlineData("csv")]
    [InlineData("xlsx")]
    [InlineData("json")]
    public async Task Is_taken_out_and_brought_into_another_account_the_same(string form)
    {
        var (visitor, path, account, _) = await AccountAsync();
        var asked = await visitor.PostAsync($"{path}/outtakes", new { form });
        var file = await (
            await visitor.GetAsync($"{path}/outtakes/{asked.GetProperty("id").GetGuid()}/file")
        ).Content.ReadAsByteArrayAsync();

        var (other, stranger, _) = await fixture.Host.NewAccountAsync();
        var there = $"/api/accounts/{other}";
        var intake = await stranger.UploadAsync($"{there}/intakes", file);
        await stranger.JobAsync(other, intake.GetProperty("job"));
        var kept = await stranger.JobAsync(
            other,
            await stranger.PostAsync($"{there}/intakes/{intake.GetProperty("intakeId").GetInt64()}/keep")
        );

        kept.GetProperty("state").GetString().ShouldBe("done", kept.GetRawText());
        (await StateAsync(other, references: false)).ShouldBe(await StateAsync(account, references: false));
    }

    [Fact]
    public async Task Is_published_and_read_back_as_three_versions()
    {
        var (visitor, path, account, network) = await AccountAsync();
        var job = await visitor.JobAsync(account, await visitor.PostAsync($"{path}/publishes", new { }));
        job.GetProperty("state").GetString().ShouldBe("done", job.GetRawText());
        (await visitor.StatusAsync(account)).GetProperty("changes").GetInt64().ShouldBe(0);
        var id = (await GadgetAsync(visitor, path)).GetProperty("id").GetInt64();
        await network.EditFromOutsideAsync(
            new NetworkChange(
                MadeUpType.Number,
                id,
                ChangeAction.Put,
                JsonSerializer.SerializeToElement(
                    new
                    {
                        id,
                        text = "Theirs",
                        price = 9.5m,
                        shows = 1,
                    }
                )
            )
        );

        var items = await visitor.PostAsync($"{path}/live/read");
        items.GetArrayLength().ShouldBe(1);
        await visitor.PostAsync(
            $"{path}/commands",
            new
            {
                type = "decideLive",
                items = Array.Empty<object>(),
                takeTheirs = true,
            }
        );

        var values = (await GadgetAsync(visitor, path)).GetProperty("values");
        (values.GetProperty("text").GetString(), values.GetProperty("price").GetDecimal()).ShouldBe(("Theirs", 9.5m));
        values.GetProperty("labels").GetArrayLength().ShouldBe(2);
    }
}
