using System.Globalization;
using System.Text;
using System.Text.Json;
using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

/// <summary>A request drawn from the contract by a seed, most often with something broken in it.</summary>
internal sealed class MadeRequest
{
    /// <summary>Operations that a fuzzer cannot sensibly draw: streams without an end, the end of the session, an account that is put away in the middle.</summary>
    private static readonly string[] LeftOut =
    [
        "/news",
        "DELETE /api/session",
        "/outtakes/{outtakeId}",
        "PUT /api/accounts/{accountId}/archived",
    ];

    /// <summary>The campaign that the account shows; the other account shows the next.</summary>
    private const string FirstLook = "1";

    private static readonly string[] Odd =
    [
        "null",
        "\"\"",
        "\"\\u0000\"",
        "\"\\ud83d\"",
        "\"\\udc00x\"",
        "\"\\uffff\"",
        "-1",
        "0",
        "1e308",
        "1e400",
        "99999999999999999999",
        "1.5",
        "true",
        "[]",
        "{}",
        "[null]",
        "{\"a\":1,\"a\":2}",
        "\"2026-02-30\"",
        "\"'; drop table keyword; --\"",
        "\"{{name}} $1 %s\"",
        "\"(((((((((((((((((((\"",
        "\"(a+)+$\"",
        "\"\\\\p{\"",
        "\"(?=x)\"",
    ];

    private readonly Contract _contract;
    private readonly Random _chance;
    private readonly long[] _ids;
    private int _toBreak;

    public MadeRequest(Contract contract, int account, long[] ids, int seed)
    {
        (_contract, _ids, _chance) = (contract, ids, new Random(seed));
        var operations = contract
            .Operations.Where(each =>
                !LeftOut.Any(left => $"{each.Method} {each.Path}".Contains(left, StringComparison.Ordinal))
                // Whoever is signed in is signed out by signing in once more, and all that follows would be refused for that alone.
                && !(each.Path == "/api/session" && each.Method == HttpMethod.Post)
            )
            .ToArray();
        var operation = operations[seed % operations.Length];

        // Commands have by far the most forms.
        if (_chance.Next(3) == 0)
        {
            operation = operations.Single(each => each.Path.EndsWith("/commands", StringComparison.Ordinal));
        }

        _toBreak = _chance.Next(4);
        Method = operation.Method;
        Path = PathOf(operation, account);
        Body =
            operation.Body is { } schema ? Break(Json(schema, 0))
            : operation.TakesBytes ? Odd[_chance.Next(Odd.Length)]
            : null;
    }

    public HttpMethod Method { get; }
    public string Path { get; }
    public string? Body { get; }

    /// <summary>An account with something of every common kind in it.</summary>
    public static async Task FillAsync(Visitor visitor, int account)
    {
        const string list = """
            campaign,daily budget,ad group,ad group max cpc,keyword,match type,headline 1,headline 2,description 1,url
            Tuning,40,Piano tuning,1.20,piano tuning,phrase,,,,
            Tuning,40,Piano tuning,1.20,piano tuner,exact,,,,
            Tuning,40,Piano tuning,1.20,,,Piano Tuning,Ask For A Price,Same-week visits.,https://tarnandfell.example/tuning
            Tuning,40,,,-free,,,,,
            Hire,25,Concert hire,2,piano hire,broad,,,,
            """;
        var begun = await visitor.UploadAsync(
            $"/api/accounts/{account}/intakes?fileName=list.csv",
            Encoding.UTF8.GetBytes(list)
        );
        await visitor.JobAsync(account, begun.GetProperty("job"));
        var kept = await visitor.PostAsync(
            $"/api/accounts/{account}/intakes/{begun.GetProperty("intakeId").GetInt64()}/keep"
        );
        await visitor.JobAsync(account, kept);
        await visitor.PostAsync(
            $"/api/accounts/{account}/commands",
            new
            {
                type = "addNegativeList",
                name = "Shared",
                campaignIds = Array.Empty<long>(),
                lines = "free",
                match = "phrase",
            }
        );
        var campaigns = await visitor.ReadAsync($"/api/accounts/{account}/campaigns");
        await visitor.PostAsync(
            $"/api/accounts/{account}/looks/campaign",
            new { campaignId = campaigns[0].GetProperty("id").GetInt64() }
        );
    }

    /// <summary>Ids of items, steps, publishes and intakes of both accounts.</summary>
    public static async Task<long[]> IdsAsync(ServerHost host, int account, int foreign) =>
        await host.QueryAsync<long[]>(
            """
            select array_agg(id) from (
              select id from campaign union select id from ad_group union select id from keyword union select id from text_ad
              union select id from negative_keyword union select id from negative_list union select id from step union select id from intake
              union select @account union select @foreign) ids
            """,
            new { account = (long)account, foreign = (long)foreign }
        );

    private string PathOf(ContractOperation operation, int account)
    {
        var path = operation.Path;
        var query = new List<string>();
        foreach (var parameter in operation.Parameters)
        {
            var value =
                parameter.Name == "accountId"
                    ? _chance.Next(30) == 0
                        ? $"{_ids[_chance.Next(_ids.Length)]}"
                        : $"{account}"
                    : parameter.Name == "lookId" && _chance.Next(4) > 0
                        ? FirstLook
                        : Scalar(Json(parameter.Schema, 3));
            if (parameter.In == "path")
            {
                path = path.Replace($"{{{parameter.Name}}}", Uri.EscapeDataString(value), StringComparison.Ordinal);
            }
            else if (parameter.In == "query" && _chance.Next(5) > 0)
            {
                query.Add($"{parameter.Name}={Uri.EscapeDataString(value)}");
            }
        }

        return path + (query.Count == 0 ? "" : "?" + string.Join('&', query));
    }

    /// <summary>A value as it stands in an address.</summary>
    private string Scalar(string json)
    {
        if (_toBreak > 0 && _chance.Next(4) == 0)
        {
            _toBreak--;
            json = Odd[_chance.Next(Odd.Length)];
        }

        return json.Trim('"').Replace("\\u0000", "\0", StringComparison.Ordinal);
    }

    /// <summary>Something that the schema allows, written as JSON; with parts broken while there is something to break.</summary>
    private string Json(JsonElement schema, int depth)
    {
        schema = _contract.Resolve(schema);
        if (_toBreak > 0 && _chance.Next(12) == 0)
        {
            _toBreak--;
            return _chance.Next(12) == 0 ? $"\"{new string('ü', 300_000)}\"" : Odd[_chance.Next(Odd.Length)];
        }

        if (Choice(schema) is { } choices)
        {
            return Json(choices[_chance.Next(choices.Length)], depth);
        }

        if (schema.TryGetProperty("enum", out var values))
        {
            return values[_chance.Next(values.GetArrayLength())].GetRawText();
        }

        if (schema.TryGetProperty("const", out var only))
        {
            return only.GetRawText();
        }

        return TypeOf(schema) switch
        {
            "object" => Object(schema, depth),
            "array" =>
                $"[{string.Join(',', Enumerable.Range(0, depth > 5 ? 0 : _chance.Next(3)).Select(_ => Json(schema.GetProperty("items"), depth + 1)))}]",
            "integer" => Number(),
            "number" => (_chance.Next(10_000) / 100m).ToString(CultureInfo.InvariantCulture),
            "boolean" => _chance.Next(2) == 0 ? "true" : "false",
            "null" => "null",
            _ => Text(schema),
        };
    }

    private static JsonElement[]? Choice(JsonElement schema) =>
        schema.TryGetProperty("anyOf", out var any) ? [.. any.EnumerateArray()]
        : schema.TryGetProperty("oneOf", out var one) ? [.. one.EnumerateArray()]
        : null;

    private string TypeOf(JsonElement schema)
    {
        if (!schema.TryGetProperty("type", out var type))
        {
            return schema.TryGetProperty("properties", out _) ? "object" : "string";
        }

        return type.ValueKind == JsonValueKind.Array
            ? type[_chance.Next(type.GetArrayLength())].GetString()!
            : type.GetString()!;
    }

    private string Object(JsonElement schema, int depth)
    {
        var parts = new List<string>();
        var needed = schema.TryGetProperty("required", out var required)
            ? required.EnumerateArray().Select(each => each.GetString()).ToHashSet()
            : [];
        if (schema.TryGetProperty("properties", out var properties))
        {
            foreach (var property in properties.EnumerateObject())
            {
                if (_toBreak > 0 && _chance.Next(25) == 0)
                {
                    // A part that has to be there is missing.
                    _toBreak--;
                }
                else if (needed.Contains(property.Name) || (depth < 4 && _chance.Next(2) == 0))
                {
                    var value =
                        property.Name == "variant" && _chance.Next(4) > 0 ? FirstLook : Json(property.Value, depth + 1);
                    parts.Add($"{JsonSerializer.Serialize(property.Name)}:{value}");
                }
            }
        }

        if (schema.TryGetProperty("additionalProperties", out var more) && more.ValueKind == JsonValueKind.Object)
        {
            foreach (var name in new[] { "name", "text", "maxCpc", "dailyBudget", "state", "match", "colour" })
            {
                if (_chance.Next(4) == 0)
                {
                    parts.Add($"\"{name}\":{Json(more, depth + 1)}");
                }
            }
        }

        return $"{{{string.Join(',', parts)}}}";
    }

    private string Number() =>
        _chance.Next(6) switch
        {
            0 => $"{_chance.Next(-5, 500)}",
            1 => "9007199254740993",
            2 => $"{int.MaxValue}",
            _ => $"{_ids[_chance.Next(_ids.Length)]}",
        };

    private string Text(JsonElement schema)
    {
        if (schema.TryGetProperty("format", out var format))
        {
            switch (format.GetString())
            {
                case "date":
                    return $"\"2026-0{_chance.Next(1, 9)}-1{_chance.Next(9)}\"";
                case "uuid":
                    return $"\"{new Guid(_chance.Next(), 1, 2, [1, 2, 3, 4, 5, 6, 7, 8])}\"";
            }
        }

        return _chance.Next(7) switch
        {
            0 => "\"piano\"",
            1 => "\"1.30\"",
            2 => "\"+10%\"",
            3 => "\"Paused\"",
            4 => "\"text\"",
            5 => "\"maxCpc\"",
            _ => JsonSerializer.Serialize(
                PackagedInputs.NaughtyStrings[_chance.Next(PackagedInputs.NaughtyStrings.Count)]
            ),
        };
    }

    private string Break(string json) =>
        _chance.Next(40) switch
        {
            0 => json[..(json.Length / 2)],
            1 => json + "}",
            2 => "[" + json + "]",
            3 => "",
            _ => json,
        };
}
