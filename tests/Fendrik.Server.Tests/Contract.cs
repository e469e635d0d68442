using System.Text.Json;

namespace Fendrik.Server.Tests;

/// <summary>One parameter of an operation.</summary>
internal sealed record ContractParameter(string Name, string In, JsonElement Schema);

/// <summary>One operation that the contract describes.</summary>
internal sealed record ContractOperation(
    HttpMethod Method,
    string Path,
    IReadOnlyList<ContractParameter> Parameters,
    JsonElement? Body,
    bool TakesBytes
);

/// <summary>The description of the API, as it is served.</summary>
internal sealed class Contract
{
    private readonly JsonElement _document;

    public Contract(JsonElement document)
    {
        _document = document;
        Operations =
        [
            .. document
                .GetProperty("paths")
                .EnumerateObject()
                .SelectMany(path => path.Value.EnumerateObject().Select(method => Read(path.Name, method))),
        ];
    }

    public IReadOnlyList<ContractOperation> Operations { get; }

    /// <summary>A schema itself, where it is only named.</summary>
    public JsonElement Resolve(JsonElement schema)
    {
        while (schema.ValueKind == JsonValueKind.Object && schema.TryGetProperty("$ref", out var reference))
        {
            var found = _document;
            foreach (var part in reference.GetString()!.TrimStart('#', '/').Split('/'))
            {
                found = found.GetProperty(part);
            }

            schema = found;
        }

        return schema;
    }

    private static ContractOperation Read(string path, JsonProperty method)
    {
        var parameters = method.Value.TryGetProperty("parameters", out var listed)
            ? listed
                .EnumerateArray()
                .Select(each => new ContractParameter(
                    each.GetProperty("name").GetString()!,
                    each.GetProperty("in").GetString()!,
                    each.GetProperty("schema")
                ))
                .ToArray()
            : [];
        JsonElement? body = null;
        var bytes = false;
        if (method.Value.TryGetProperty("requestBody", out var request))
        {
            var content = request.GetProperty("content");
            bytes = !content.TryGetProperty("application/json", out var json);
            body = bytes ? null : json.GetProperty("schema");
        }

        return new ContractOperation(new HttpMethod(method.Name.ToUpperInvariant()), path, parameters, body, bytes);
    }
}
