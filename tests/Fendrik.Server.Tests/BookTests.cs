using System.Net;
using System.Text;
using System.Text.Json;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

/// <summary>Own books, goals and test visits through the API, with the real network stand-in.</summary>
[Collection(nameof(ServerFixture))]
public class BookTests(ServerFixture fixture)
{
    private static Task PutActionAsync(Visitor visitor, int account, string name, string source) =>
        visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "put",
                kind = "conversionAction",
                values = new { name, source },
                place = new { },
            }
        );

    private static async Task<(HttpStatusCode Status, JsonElement Body)> BringAsync(
        Visitor visitor,
        int account,
        string list
    )
    {
        using var response = await visitor.PostBytesAsync(
            $"/api/accounts/{account}/conversions/books?preview=true",
            Encoding.UTF8.GetBytes(list)
        );
        return (response.StatusCode, JsonDocument.Parse(await response.Content.ReadAsStringAsync()).RootElement);
    }

    [Fact]
    public async Task Each_row_that_does_not_match_is_told_with_its_row_and_column_and_the_others_stand()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        using var _ = visitor;
        await PutActionAsync(visitor, account, "Sale", "sale");

        var (status, body) = await BringAsync(
            visitor,
            account,
            "click id,time,value\n3f9a0c52d1,2020-05-11 14:30,10\n,2020-05-11,5\nabc,2020-05-11,lots\n"
        );

        status.ShouldBe(HttpStatusCode.OK);
        body.GetProperty("rows").GetInt32().ShouldBe(3);
        body.GetProperty("changes").GetInt32().ShouldBe(0);
        body.GetProperty("problems")
            .EnumerateArray()
            .Select(problem => (problem.GetProperty("row").GetInt32(), problem.GetProperty("field").GetString()))
            .ShouldBe([(2, "conversion action"), (3, "click id"), (4, "value")]);
    }

    [Theory]
    [InlineData("time,value\n2020-05-11,5\n", "There is no column “click id”, “caller” or “address”")]
    [InlineData("click id,time\n", "There is no line in it behind the headers.")]
    public async Task A_list_that_cannot_be_read_is_refused_as_a_whole(string list, string message)
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        using var _ = visitor;
        await PutActionAsync(visitor, account, "Sale", "sale");

        var (status, body) = await BringAsync(visitor, account, list);

        status.ShouldBe(HttpStatusCode.UnprocessableEntity);
        body.ToString().ShouldContain(message);
    }

    [Fact]
    public async Task Totals_stand_beside_the_figures_and_are_there_once_however_often_they_are_brought_in()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        using var _ = visitor;
        await visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "Hire", dailyBudget = 25m },
                place = new { },
            }
        );
        async Task<JsonElement> BringAsync(string list)
        {
            using var response = await visitor.PostBytesAsync(
                $"/api/accounts/{account}/conversions/books?preview=false",
                Encoding.UTF8.GetBytes(list)
            );
            return JsonDocument.Parse(await response.Content.ReadAsStringAsync()).RootElement;
        }

        const string List =
            "day,campaign,device,sales,value\n2020-05-11,Hire,phone,2,340\n2020-05-11,Hire,desktop,1,100\n2020-05-11,Sale,,1,5\n";
        var first = await BringAsync(List);
        var second = await BringAsync(List);
        await BringAsync("day,campaign,device,sales,value\n2020-05-11,Hire,phone,3,400\n");

        first.GetProperty("changes").GetInt32().ShouldBe(2);
        first
            .GetProperty("problems")
            .EnumerateArray()
            .ShouldHaveSingleItem()
            .GetProperty("field")
            .GetString()
            .ShouldBe("campaign");
        second.GetProperty("changes").GetInt32().ShouldBe(0);
        var results = await visitor.ReadAsync(
            $"/api/accounts/{account}/results?first=2020-05-11&last=2020-05-12&level=campaign"
        );
        foreach (
            var figures in new[]
            {
                results.GetProperty("total"),
                results.GetProperty("days")[0].GetProperty("figures"),
                results.GetProperty("rows")[0].GetProperty("figures"),
            }
        )
        {
            figures.GetProperty("ownSales").GetProperty("now").GetDecimal().ShouldBe(4);
            figures.GetProperty("ownValue").GetProperty("now").GetDecimal().ShouldBe(500);
        }
    }

    [Fact]
    public async Task Goals_are_read_against_the_past_by_the_names_of_the_actions()
    {
        var (account, visitor, _) = await fixture.Host.NewAccountAsync();
        using var _ = visitor;
        await PutActionAsync(visitor, account, "Sale", "sale");
        await PutActionAsync(visitor, account, "Form", "form");
        await visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "put",
                kind = "campaign",
                values = new { name = "Tuning", dailyBudget = 25m },
                place = new { },
            }
        );
        var conversions = await visitor.ReadAsync($"/api/accounts/{account}/conversions");
        var campaign = conversions.GetProperty("campaigns")[0].GetProperty("id").GetInt64();
        var form = conversions.GetProperty("actions")[0].GetProperty("id").GetInt64();

        var goals = await visitor.ReadAsync($"/api/accounts/{account}/conversions/goals/{campaign}?actionIds={form}");

        goals.GetProperty("nowNames").GetString().ShouldBe("Form, Sale");
        goals.GetProperty("thenNames").GetString().ShouldBe("Form");
        goals.GetProperty("isSame").GetBoolean().ShouldBeFalse();
    }
}
