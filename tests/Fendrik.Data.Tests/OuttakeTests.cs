using System.Data;
using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using Dapper;
using ExcelDataReader;
using Fendrik.Core.Accounts;
using Fendrik.Core.Lists;
using Fendrik.Data.Intakes;
using Fendrik.Data.Outtakes;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Tables;
using Fendrik.Tests.Shared;
using Json.Schema;
using Microsoft.VisualBasic.FileIO;

namespace Fendrik.Data.Tests;

[Collection(nameof(WorkingCopyFixture))]
public class OuttakeTests(WorkingCopyFixture fixture)
{
    private const string Account = """"
        item,campaign,ad group,negative list,keyword,negative keyword,match type,max cpc,daily budget,start date,end date,networks,state,landing page,headline 1,headline 2,description 1,path 1,device,labels
        campaign,"Leeds, tuning",,,,,,,25.00,2027-01-04,2027-06-30,search + partners,paused,,,,,,,spring; two words
        ad group,"Leeds, tuning",Grands,,,,,1.10,,,,,,,,,,,,
        keyword,"Leeds, tuning",Grands,,grand piano tuning,,exact,1.35,,,,,paused,https://tarnandfell.example/grand,,,,,,spring
        keyword,"Leeds, tuning",Grands,,grand piano tuning,,broad,,,,,,,,,,,,,
        negative keyword,"Leeds, tuning",,,,free,phrase,,,,,,,,,,,,,
        negative keyword,"Leeds, tuning",Grands,,,upright,broad,,,,,,,,,,,,,spring
        text ad,"Leeds, tuning",Grands,,,,,,,,,,,https://tarnandfell.example/grand,"=Tuned, ""well""",Grand Pianos,Concert-trained tuners.,tuning,phone,
        negative list,,,Not buyers,,,,,,,,,,,,,,,,spring
        negative list,"Leeds, tuning",,Not buyers,,,,,,,,,,,,,,,,
        negative keyword,,,Not buyers,,jobs,exact,,,,,,,,,,,,,
        """";

    // ExcelDataReader asks for it even where a workbook has none of the old encodings.
    static OuttakeTests() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    private OuttakeFile Outtake => new(fixture.Source, fixture.WorkingCopy);

    [Theory]
    [InlineData(OuttakeForm.Csv)]
    [InlineData(OuttakeForm.Xlsx)]
    [InlineData(OuttakeForm.Json)]
    public async Task Any_account_taken_out_and_brought_into_an_empty_one_is_the_same_to_the_last_field(
        OuttakeForm form
    ) =>
        await AnyAccount.Any.SampleAsync(
            async any =>
            {
                var account = await any.MakeAsync(fixture);
                var copy = await fixture.NewAccountAsync();

                await BringInAsync(copy, await FileAsync(account, form));

                (await ContentAsync(copy)).ShouldBe(await ContentAsync(account));
            },
            iter: form == OuttakeForm.Xlsx ? 12 : 25,
            threads: 1
        );

    [Theory]
    [InlineData(OuttakeForm.Csv)]
    [InlineData(OuttakeForm.Xlsx)]
    [InlineData(OuttakeForm.Json)]
    public async Task What_was_taken_out_changes_nothing_when_it_is_brought_in_again(OuttakeForm form)
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Account);

        var view = await fixture.ViewAsync(
            account,
            await fixture.BringFileAsync(account, await FileAsync(account, form))
        );

        view.Counts.ShouldAllBe(count => count.Outcome == IntakeOutcome.Same);
        view.Counts.Sum(count => count.Count).ShouldBe(10);
    }

    [Fact]
    public async Task CSV_is_read_by_another_reader_to_the_last_field()
    {
        // TextFieldParser of .NET itself; the file is written by CsvHelper, and read by Sylvan in an intake.
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Account);
        using var reader = new TextFieldParser(
            new MemoryStream(await FileAsync(account, OuttakeForm.Csv)),
            Encoding.UTF8
        )
        {
            Delimiters = [","],
            HasFieldsEnclosedInQuotes = true,
        };
        var headers = reader.ReadFields()!;
        var rows = new List<Dictionary<string, string>>();
        while (reader.ReadFields() is { } cells)
        {
            rows.Add(headers.Zip(cells).ToDictionary(pair => pair.First, pair => pair.Second));
        }

        rows.Select(row => row["Item"])
            .ShouldBe([
                "account",
                "campaign",
                "ad group",
                "negative list",
                "negative list",
                "keyword",
                "keyword",
                "negative keyword",
                "negative keyword",
                "negative keyword",
                "text ad",
            ]);
        var campaign = rows[1];
        (
            campaign["Campaign"],
            campaign["Daily budget (GBP)"],
            campaign["End date"],
            campaign["Networks"],
            campaign["Labels"]
        ).ShouldBe(("Leeds, tuning", "25.00", "2027-06-30", "search + partners", "spring; two words"));
        rows[^1]["Headline 1"].ShouldBe("'=Tuned, \"well\"");
    }

    [Fact]
    public async Task CSV_ends_each_row_with_CR_LF_and_doubles_quotation_marks()
    {
        // RFC 4180, section 2, rules 1 and 7.
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Account);

        var text = Encoding.UTF8.GetString(await FileAsync(account, OuttakeForm.Csv));

        text.ShouldEndWith("\r\n");
        text.Replace("\r\n", "", StringComparison.Ordinal).ShouldNotContain('\n');
        text.ShouldContain("\"'=Tuned, \"\"well\"\"\"");
    }

    [Fact]
    public async Task A_workbook_is_read_by_another_library_with_amounts_as_numbers_and_days_as_dates()
    {
        // ExcelDataReader, which has nothing in common with the library that writes.
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Account);
        using var reader = ExcelReaderFactory.CreateReader(
            new MemoryStream(await FileAsync(account, OuttakeForm.Xlsx))
        );
        reader.Read();
        var column = Enumerable.Range(0, reader.FieldCount).ToDictionary(reader.GetString);
        reader.Read();
        reader.GetString(column["Item"]).ShouldBe("account");
        reader.Read();

        reader.GetString(column["Campaign"]).ShouldBe("Leeds, tuning");
        reader.GetDouble(column["Daily budget (GBP)"]).ShouldBe(25.0);
        reader.GetDateTime(column["Start date"]).ShouldBe(new DateTime(2027, 1, 4));
        reader.IsDBNull(column["Keyword"]).ShouldBeTrue();
        reader.Name.ShouldBe("Items");
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task A_workbook_is_valid_by_the_standard_with_its_titles_in_sight(bool template)
    {
        // ISO/IEC 29500 by the validator of the Open XML SDK, a third library.
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Account);
        var file = new MemoryStream();
        if (template)
        {
            await IntakeTemplate.WriteAsync(
                file,
                await fixture.WorkingCopy.FactsAsync(account, CancellationToken.None),
                CancellationToken.None
            );
        }
        else
        {
            await file.WriteAsync(await FileAsync(account, OuttakeForm.Xlsx));
        }

        using var workbook = DocumentFormat.OpenXml.Packaging.SpreadsheetDocument.Open(file, isEditable: false);

        new DocumentFormat.OpenXml.Validation.OpenXmlValidator()
            .Validate(workbook)
            .Select(error => error.Description)
            .ShouldBeEmpty();
        var sheet = workbook.WorkbookPart!.WorksheetParts.First().Worksheet!;
        using (var xml = new StreamReader(workbook.WorkbookPart!.WorksheetParts.First().GetStream()))
        {
            (await xml.ReadToEndAsync()).ShouldContain("<worksheet xmlns=");
        }

        sheet.Descendants<DocumentFormat.OpenXml.Spreadsheet.Pane>().Single().TopLeftCell!.Value.ShouldBe("A2");
        sheet
            .Descendants<DocumentFormat.OpenXml.Spreadsheet.Column>()
            .ShouldAllBe(column => column.Width!.Value >= 9 && column.CustomWidth!.Value);
    }

    [Fact]
    public async Task JSON_is_valid_by_the_published_schema()
    {
        // JSON Schema 2020-12, by the library JsonSchema.Net.
        var schema = JsonSchema.FromText(AccountFileSchema.Make().ToJsonString());
        await AnyAccount.Any.SampleAsync(
            async any =>
            {
                var file = await FileAsync(await any.MakeAsync(fixture), OuttakeForm.Json);

                var result = schema.Evaluate(
                    JsonNode.Parse(file),
                    new EvaluationOptions { OutputFormat = OutputFormat.List, RequireFormatValidation = true }
                );

                result.IsValid.ShouldBeTrue(JsonSerializer.Serialize(result.Details.Where(each => each.HasErrors)));
            },
            iter: 10,
            threads: 1
        );
    }

    [Fact]
    public async Task The_published_schema_refuses_what_an_intake_would()
    {
        var schema = JsonSchema.FromText(AccountFileSchema.Make().ToJsonString());
        foreach (
            var item in new[]
            {
                """{"item":"keyword","campaign":"A","adGroup":"B","text":"piano"}""",
                """{"item":"keyword","campaign":"A","text":"piano","matchType":"exact"}""",
                """{"item":"campaign","campaign":"A","dailyBudget":-1}""",
                """{"item":"campaign","campaign":"A","colour":"red"}""",
                """{"item":"negative keyword","negativeList":"L","campaign":"A","text":"free","matchType":"exact"}""",
                """{"item":"text ad","campaign":"A","adGroup":"B","headlines":[]}""",
            }
        )
        {
            schema
                .Evaluate(JsonNode.Parse($$"""{"format":"fendrik-account","version":1,"items":[{{item}}]}"""))
                .IsValid.ShouldBeFalse(item);
        }
    }

    [Fact]
    public async Task Takes_out_only_what_the_filter_lets_through()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Account);

        var text = Encoding.UTF8.GetString(
            await FileAsync(
                account,
                new OuttakeWish(OuttakeForm.Csv, new SheetRequest { Kind = ItemKind.Keyword, Match = MatchType.Exact })
            )
        );

        text.Split("\r\n", StringSplitOptions.RemoveEmptyEntries).Length.ShouldBe(2);
        text.ShouldContain("keyword,,\"Leeds, tuning\",");
    }

    [Fact]
    public async Task Takes_out_only_the_items_named()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Account);
        var ad = (await fixture.RowsAsync(account, new SheetRequest { Kind = ItemKind.TextAd })).Single();

        var file = JsonNode.Parse(
            await FileAsync(account, new OuttakeWish(OuttakeForm.Json, null, [WorkingCopyFixture.Reference(ad)]))
        )!;

        file["items"]!.AsArray().Single()!["item"]!.GetValue<string>().ShouldBe("text ad");
    }

    [Fact]
    public async Task Takes_out_nothing_of_another_account()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Account);
        var other = await fixture.NewAccountAsync();
        var rows = await fixture.RowsAsync(account);

        await Should.ThrowAsync<InvalidChangeException>(() =>
            FileAsync(other, new OuttakeWish(OuttakeForm.Csv, null, [.. rows.Select(WorkingCopyFixture.Reference)]))
        );
        Encoding.UTF8.GetString(await FileAsync(other, OuttakeForm.Csv)).ShouldNotContain("Leeds");
    }

    [Fact]
    public async Task Leaves_out_what_was_removed()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Account);
        var campaign = await fixture.RowAsync(account, "Leeds, tuning", ItemKind.Campaign);
        await fixture.DoAsync(account, new RemoveItems([WorkingCopyFixture.Reference(campaign)]));

        var file = JsonNode.Parse(await FileAsync(account, OuttakeForm.Json))!;

        file["items"]!
            .AsArray()
            .Select(item => item!["item"]!.GetValue<string>())
            .ShouldBe(["account", "negative list", "negative keyword"]);
    }

    [Fact]
    public async Task A_file_in_another_currency_is_not_taken_for_this_ones()
    {
        var account = await fixture.NewAccountAsync();
        await fixture.KeepAsync(account, Account);
        var yen = await fixture.NewAccountAsync(currency: "JPY");

        foreach (var form in Enum.GetValues<OuttakeForm>())
        {
            var file = await FileAsync(account, form);
            (
                await Should.ThrowAsync<IntakeFileException>(() => fixture.BringFileAsync(yen, file))
            ).Message.ShouldContain("is in GBP, the account is in JPY");
        }
    }

    [Fact]
    public async Task The_template_has_every_column_and_brings_in_what_is_filled_in()
    {
        var file = new MemoryStream();
        await IntakeTemplate.WriteAsync(
            file,
            await fixture.WorkingCopy.FactsAsync(await fixture.NewAccountAsync(), CancellationToken.None),
            CancellationToken.None
        );
        using var reader = ExcelReaderFactory.CreateReader(new MemoryStream(file.ToArray()));
        reader.Read();

        Enumerable
            .Range(0, reader.FieldCount)
            .Select(column => ColumnGuess.OfHeader(reader.GetString(column)))
            .ShouldBe(AccountFile.Columns);
        reader.NextResult().ShouldBeTrue();
        reader.Name.ShouldBe("Columns");
        var account = await fixture.NewAccountAsync();
        (
            await fixture.ViewAsync(account, await fixture.BringFileAsync(account, file.ToArray()))
        ).Counts.ShouldBeEmpty();
    }

    private async Task BringInAsync(int account, byte[] file)
    {
        var intake = await fixture.BringFileAsync(account, file);
        var view = await fixture.ViewAsync(account, intake);
        view.Refused.ShouldBeEmpty();
        if (view.Counts.Count > 0)
        {
            await fixture.DoAsync(account, new KeepIntake(intake));
        }
    }

    private Task<byte[]> FileAsync(int account, OuttakeForm form) => FileAsync(account, new OuttakeWish(form));

    private async Task<byte[]> FileAsync(int account, OuttakeWish wish)
    {
        var file = new MemoryStream();
        await Outtake.WriteAsync(account, wish, file, CancellationToken.None);
        return file.ToArray();
    }

    /// <summary>All that a person has put into an account, with names for identities.</summary>
    private async Task<string> ContentAsync(int account)
    {
        await using var connection = await fixture.Source.OpenConnectionAsync();
        var tables = await connection.QueryAsync<string>(
            "select table_name from information_schema.columns where table_schema = 'public' and column_name = 'changed_by' and table_name not like '%\\_before'"
        );
        const string campaign =
            "coalesce((j->>'campaign_id')::bigint, (select g.campaign_id from ad_group g where g.id = (j->>'ad_group_id')::bigint))";
        var rows = await connection.QueryAsync<string>(
            string.Join(
                " union all ",
                tables.Select(table =>
                    $"""
                        select concat_ws(' | ', '{table}', (select c.name from campaign c where c.id = {campaign}), (select g.name from ad_group g where g.id = (j->>'ad_group_id')::bigint),
                          (select l.name from negative_list l where l.id = (j->>'list_id')::bigint),
                          (select string_agg(c.name, ', ' order by c.name) from campaign c where not c.removed and c.id in (select jsonb_array_elements_text(j->'campaign_ids')::bigint)),
                          (j - array['id', 'account_id', 'campaign_id', 'ad_group_id', 'list_id', 'campaign_ids', 'changed_by', 'live', 'is_live', 'review'])::text)
                        from (select to_jsonb(i) as j from {table} i where i.account_id = @account and not i.removed) rows
                        """
                )
            ),
            new { account }
        );
        return string.Join('\n', rows.Order(StringComparer.Ordinal));
    }
}
