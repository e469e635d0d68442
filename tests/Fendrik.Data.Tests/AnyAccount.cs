using CsCheck;
using Dapper;
using Fendrik.Core.Items.Values;
using Fendrik.Core.Matching;
using Fendrik.Core.Places;
using Npgsql;

namespace Fendrik.Data.Tests;

/// <summary>An item of any kind with every field that the kind has, and where it stands.</summary>
public sealed record AnyItem(ItemType Type, string Campaign, string AdGroup, string List, ItemValues Values);

/// <summary>
/// An account with items of every kind at every level where they may stand, drawn from the descriptions: hostile names, every
/// optional value given and not. It is written into the database with plain SQL of its own.
/// </summary>
public sealed record AnyAccount(IReadOnlyList<AnyItem> Items)
{
    private static readonly Gen<string> Name = Gen.OneOf(
            Gen.OneOfConst(
                "Leeds tuning",
                "=HYPERLINK(\"x\")",
                "+44 113 496 0000",
                "-5%",
                "@home",
                "'quoted",
                "''=twice",
                "a, b; \"c\"",
                "Größe & Höhe",
                "𝄞 piano 👩‍🎤",
                "none",
                "1e5",
                "007",
                "2027-01-04",
                "TRUE",
                "campaign",
                "\ufeffmark",
                "Ad group",
                "<tag attr='x'>&amp;",
                "_x000A_",
                "{\"item\":1}"
            ),
            Gen.Char["abc ,;\"'\t=+-@|[]{}<>&%éß£–"].Array[1, 12].Select(characters => new string(characters))
        )
        .Select(text => string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)))
        .Where(name => name.Length > 0 && name != "—");

    private static readonly Gen<string> Words = Name.Where(text =>
        KeywordNotation.IsPlain(text) && KeywordNotation.Read(text).Problem is null
    );

    private static readonly Gen<string> Address = Gen.OneOfConst(
        "https://tarnandfell.example/a?b=c,d&e=\"f\"",
        "tarnandfell.example",
        "http://xn--pno-qla.example/%20"
    );

    private static readonly Gen<string> Hours = Gen.OneOfConst(
        "daily 08:00-20:00",
        "Mon-Fri 08:00-17:30; Sat 09:00-12:00",
        "Mon 00:00-24:00; Sun 09:00-12:00, 13:00-17:05"
    );

    private static readonly Gen<string[]> Labels = Gen.OneOfConst("spring", "=test", "Ärger", "a b")
        .Array[0, 2]
        .Select(labels => labels.Distinct().Order(StringComparer.Ordinal).ToArray());

    private static Gen<string> AdLine(int? places) =>
        Gen.Select(Name, Gen.Int[0, 9])
            .Select(
                (text, draw) =>
                    draw == 0 ? "{{ keyword | each_word | default: \"Piano | Tuning\" }} in Leeds"
                    : draw <= places ? $"{text} [{draw}]"
                    : text
            );

    private static Gen<object?> OfField(Field field) =>
        field.Type switch
        {
            WordsValue => Words.Select(text => (object?)text),
            SiteValue => Gen.Select(Gen.Int[0, 40], Gen.OneOfConst("", "/venues", "/a/b"))
                .Select((number, path) => (object?)$"site{number}.example{path}"),
            PlaceValue => Gen.Int[0, Gazetteer.All.Count - 1].Select(at => (object?)Gazetteer.All[at].FullName),
            DistanceValue => Optional(field, Gen.Int[1, 9_000].Select(tenths => (object)(tenths / 10m))),
            PercentValue => Optional(field, Gen.Int[-1_000, 9_000].Select(tenths => (object)(tenths / 10m))),
            LanguagesValue => Optional(field, Gen.OneOfConst<object>("en", "de-CH; en", "en-GB; zh-Hant-TW")),
            WholeNumberValue => Optional(field, Gen.Int[1, 90].Select(number => (object)(decimal)number)),
            GoalsValue => Optional(field, Gen.OneOfConst<object>("Call; Form", "Booking")),
            ReturnValue => Optional(field, Gen.Int[10, 1_000_000].Select(tenths => (object)(tenths / 10m))),
            AddressValue => Optional(field, Address.Select(text => (object)text)),
            TextValue => Optional(field, Name.Select(text => (object)text)),
            WeekPlanValue => Optional(
                field,
                Gen.OneOfConst<object>(
                    "Mon-Fri 08:00-17:30",
                    "daily 00:15-03:00 -100%, 22:00-24:00 +12.5%",
                    "Mon 08:00-12:00 +20%, 13:00-17:30; Sat-Sun 09:00-12:00"
                )
            ),
            WeekHoursValue => Optional(field, Hours.Select(text => (object)text)),
            KeptApartValue => Optional(
                field,
                Gen.Const((object)"Free Tuning | {{ keyword | default: \"Piano\" }} || Ärger | a b")
            ),
            PhoneValue => Optional(field, Gen.Int[0, 999].Select(number => (object)$"+44113496{number:0000}")),
            AmountValue => Optional(field, Gen.Int[1, 100_000_000].Select(pence => (object)(pence / 100m))),
            DayValue => Optional(
                field,
                Gen.Int[0, 3_000].Select(days => (object)new DateOnly(2024, 2, 28).AddDays(days))
            ),
            ChoiceValue choice => Optional(
                field,
                Gen.Int[0, choice.Choices.Count - 1].Select(place => (object)choice.Choices[place].Number)
            ),
            FlagsValue flags => Gen.Int[1, flags.Choices.Sum(choice => choice.Number)]
                .Select(sum => (object?)(short)sum),
            AdLinesValue lines => AdLine(lines.Places)
                .Array[field == field.Of.NameField ? 1 : 0, lines.Room!.Value]
                .Select(each => (object?)each),
            LinesValue lines => Name.Array[field == field.Of.NameField ? 1 : 0, lines.Room!.Value]
                .Select(each => (object?)each),
            LabelsValue => Labels.Select(labels => (object?)labels),
            ReferencesValue => Gen.Const((object?)Array.Empty<long>()),
            _ => throw new NotSupportedException($"Nothing is drawn for {field.Type.GetType().Name} yet."),
        };

    private static Gen<object?> Optional(Field field, Gen<object> value) =>
        field.IsClearable
            ? Gen.Select(Gen.Int[0, 3], value).Select((draw, given) => draw == 0 ? null : given)
            : value.Select(given => (object?)given);

    private static Gen<ItemValues> Of(ItemType type)
    {
        var fields = type.Fields.ToArray();
        var draw = Gen.Const(Array.Empty<object?>());
        foreach (var field in fields)
        {
            draw = Gen.Select(draw, OfField(field)).Select((before, value) => (object?[])[.. before, value]);
        }

        return draw.Select(values =>
        {
            var item = new ItemValues(type);
            for (var place = 0; place < fields.Length; place++)
            {
                item[fields[place]] = values[place];
            }

            return item;
        });
    }

    /// <summary>Up to three of each kind that stands at a level and holds nothing.</summary>
    private static Gen<ItemValues[]> Leaves(Level level)
    {
        var draw = Gen.Const(Array.Empty<ItemValues>());
        foreach (
            var type in ItemTypes.All.Where(type => type is { Holds: null, ComesAndGoes: true } && type.StandsIn(level))
        )
        {
            draw = Gen.Select(draw, Of(type).Array[0, 3]).Select((before, some) => (ItemValues[])[.. before, .. some]);
        }

        return draw;
    }

    private static readonly Gen<(ItemValues Group, ItemValues[] Inside)> Group = Gen.Select(
        Of(ItemTypes.Of(ItemKind.AdGroup)),
        Leaves(Level.AdGroup)
    );

    private static readonly Gen<(ItemValues Campaign, ItemValues[] Own, (ItemValues, ItemValues[])[] Groups)> Campaign =
        Gen.Select(Of(ItemTypes.Of(ItemKind.Campaign)), Leaves(Level.Campaign), Group.Array[0, 2]);

    /// <summary>Draws an account.</summary>
    public static Gen<AnyAccount> Any { get; } =
        Gen.Select(
                Of(ItemTypes.Of(ItemKind.Account)),
                Leaves(Level.Account),
                Campaign.Array[0, 2],
                Gen.Select(Of(ItemTypes.Of(ItemKind.NegativeList)), Leaves(Level.List), Gen.Bool.Array[2]).Array[0, 2]
            )
            .Select(Of);

    private static AnyAccount Of(
        ItemValues account,
        ItemValues[] own,
        (ItemValues Campaign, ItemValues[] Own, (ItemValues Group, ItemValues[] Inside)[] Groups)[] campaigns,
        (ItemValues List, ItemValues[] Inside, bool[] Holds)[] lists
    )
    {
        var items = new List<AnyItem> { new(account.Type, "", "", "", account) };
        void Add(IEnumerable<ItemValues> some, string campaign, string adGroup, string list) =>
            items.AddRange(
                some.DistinctBy(IdentityOf).Select(values => new AnyItem(values.Type, campaign, adGroup, list, values))
            );

        Add(own, "", "", "");
        foreach (var campaign in campaigns.DistinctBy(each => KeyOf(each.Campaign)))
        {
            var name = campaign.Campaign.Text("name");
            Add([campaign.Campaign], name, "", "");
            Add(campaign.Own, name, "", "");
            foreach (var group in campaign.Groups.DistinctBy(each => KeyOf(each.Group)))
            {
                Add([group.Group], name, group.Group.Text("name"), "");
                Add(group.Inside, name, group.Group.Text("name"), "");
            }
        }

        foreach (var list in lists.DistinctBy(each => KeyOf(each.List)))
        {
            Add([list.List], "", "", list.List.Text("name"));
            Add(list.Inside, "", "", list.List.Text("name"));
        }

        return new AnyAccount(items);
    }

    private static string KeyOf(ItemValues holder) => TextIdentity.Of(holder.Text("name"));

    private static string IdentityOf(ItemValues values) =>
        values.Type.Kind
        + (
            values.Type.IsKnownByContent
                ? values.Type.ContentKeyOf(values)
                : string.Join(
                    '|',
                    values
                        .Type.Fields.Where(field => field.IsIdentity)
                        .Select(field => values[field] is string text ? TextIdentity.Of(text) : $"{values[field]}")
                )
        );

    /// <summary>Writes it into a new account. Every second list is shared by all campaigns.</summary>
    public async Task<int> MakeAsync(WorkingCopyFixture fixture)
    {
        var account = await fixture.NewAccountAsync();
        await using var connection = await fixture.Source.OpenConnectionAsync();
        await using var transaction = await connection.BeginTransactionAsync();
        await connection.ExecuteAsync("select set_config('fendrik.step', '0', true)");
        foreach (
            var item in Items.OrderBy(item =>
                item.Type.Holds switch
                {
                    Level.Campaign => 0,
                    Level.AdGroup => 1,
                    Level.List => 2,
                    _ => 3,
                }
            )
        )
        {
            await WriteAsync(connection, account, item);
        }

        await transaction.CommitAsync();
        return account;
    }

    private async Task WriteAsync(NpgsqlConnection connection, int account, AnyItem item)
    {
        const string campaign = "(select id from campaign where account_id = @account and name_key = @campaignKey)";
        const string group = $"(select id from ad_group where campaign_id = {campaign} and name_key = @groupKey)";
        const string list = "(select id from negative_list where account_id = @account and name_key = @listKey)";
        var columns = new List<(string Column, string Sql)>();
        var parameters = new DynamicParameters(
            new
            {
                account,
                campaignKey = TextIdentity.Of(item.Campaign),
                groupKey = TextIdentity.Of(item.AdGroup),
                listKey = TextIdentity.Of(item.List),
            }
        );
        if (item.Type.Holds is null)
        {
            var several = item.Type.Levels.Count > 1;
            if ((several || item.Type.Levels is [Level.Campaign]) && item.Campaign.Length > 0)
            {
                columns.Add(("campaign_id", campaign));
            }

            if (item.AdGroup.Length > 0)
            {
                columns.Add(("ad_group_id", group));
            }

            if (item.List.Length > 0)
            {
                columns.Add(("list_id", list));
            }
        }
        else if (item.Type.Holds == Level.AdGroup)
        {
            columns.Add(("campaign_id", campaign));
        }

        foreach (var field in item.Type.Fields)
        {
            var value = item.Values[field];
            parameters.Add("v_" + field.Column, value is DateOnly day ? day.ToDateTime(TimeOnly.MinValue) : value);
            columns.Add(
                (
                    field.Column,
                    field.Type is ReferencesValue
                        ? "coalesce((select array_agg(id order by id) from campaign where account_id = @account), '{}')"
                        : $"@v_{field.Column}{(value is DateOnly ? "::date" : "")}"
                )
            );
            if (field.KeyColumn is { } key)
            {
                parameters.Add("v_" + key, TextIdentity.Of((string)value!));
                columns.Add((key, "@v_" + key));
            }
        }

        if (item.Type.IsKnownByContent)
        {
            parameters.Add("v_content", item.Type.ContentKeyOf(item.Values));
            columns.Add(("content_key", "@v_content"));
        }

        await connection.ExecuteAsync(
            item.Type.ComesAndGoes
                ? $"insert into {item.Type.Table} (account_id, removed, is_live, review, {string.Join(", ", columns.Select(column => column.Column))}) values (@account, false, false, 0, {string.Join(", ", columns.Select(column => column.Sql))})"
                : $"update {item.Type.Table} set {string.Join(", ", columns.Select(column => $"{column.Column} = {column.Sql}"))} where account_id = @account",
            parameters
        );
    }
}
