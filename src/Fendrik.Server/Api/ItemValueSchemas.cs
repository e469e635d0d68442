using Fendrik.Data.Commands;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Fendrik.Server.Api;

/// <summary>
/// Says in the API's document what values of fields are: what a row has is whatever its field is, and what a person gives
/// is a text, a number, a list of texts, or nothing.
/// </summary>
internal sealed class ItemValueSchemas : IOpenApiSchemaTransformer
{
    public Task TransformAsync(
        OpenApiSchema schema,
        OpenApiSchemaTransformerContext context,
        CancellationToken cancellationToken
    )
    {
        var type = context.JsonTypeInfo.Type;
        if (type.IsGenericType && type.GetGenericArguments() is [var key, var value] && key == typeof(string))
        {
            if (value == typeof(FieldInput))
            {
                schema.AdditionalProperties = new OpenApiSchema
                {
                    OneOf =
                    [
                        new OpenApiSchema { Type = JsonSchemaType.String | JsonSchemaType.Null },
                        new OpenApiSchema { Type = JsonSchemaType.Number },
                        new OpenApiSchema
                        {
                            Type = JsonSchemaType.Array,
                            Items = new OpenApiSchema { Type = JsonSchemaType.String },
                        },
                    ],
                };
            }
            else if (value == typeof(object))
            {
                schema.AdditionalProperties = new OpenApiSchema();
            }
        }

        return Task.CompletedTask;
    }
}
