using System.Globalization;
using LivelyTern.Core.Measures;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace LivelyTern.Web.Http;

/// <summary>Writes the bounds of whatever is sent into the OpenAPI document.</summary>
public sealed class BoundsInDocument : IOpenApiDocumentTransformer
{
    private readonly HashSet<string> done = new(StringComparer.Ordinal);

    /// <inheritdoc/>
    public Task TransformAsync(OpenApiDocument document, OpenApiDocumentTransformerContext context, CancellationToken cancellationToken)
    {
        ArgumentNullException.ThrowIfNull(document);
        done.Clear();
        foreach (var operation in document.Paths.Values.SelectMany(path => path.Operations ?? []).Select(one => one.Value))
        {
            foreach (var parameter in operation.Parameters ?? []) Bound(parameter.Schema, parameter.Name ?? "", null);
            foreach (var content in operation.RequestBody?.Content?.Values ?? []) Bound(content.Schema, "", null);
        }

        return Task.CompletedTask;
    }

    private void Bound(IOpenApiSchema? schema, string name, string? type)
    {
        switch (schema)
        {
            case OpenApiSchemaReference reference:
                if (reference.Reference.Id is { } id && done.Add(id)) Bound(reference.Target, "", id);
                return;
            case OpenApiSchema own:
                foreach (var one in own.OneOf ?? []) Bound(one, name, type);
                Bound(own, name, type);
                return;
            default:
                return;
        }
    }

    private void Bound(OpenApiSchema schema, string name, string? type)
    {
        var kind = schema.Type & ~JsonSchemaType.Null;
        var isText = kind == JsonSchemaType.String && schema is { Format: null, Enum: null or { Count: 0 } };
        if (isText) schema.MaxLength = Bounds.LettersOf(name);
        if (kind == JsonSchemaType.Array) schema.MaxItems = Bounds.ThingsIn(name);
        if (kind == JsonSchemaType.Number)
        {
            var bound = (type is null ? null : Bounds.NumberOfType(type)) ?? Bounds.NumberOf(name);
            schema.Maximum = bound.Largest.ToString(CultureInfo.InvariantCulture);
            schema.Minimum = bound.MayBeNegative ? "-" + schema.Maximum : "0";
        }

        Bound(schema.Items, name, null);
        if (schema.AdditionalProperties is not null)
        {
            schema.MaxProperties = Bounds.ThingsIn(name);
            Bound(schema.AdditionalProperties, name, null);
        }

        foreach (var (property, of) in schema.Properties ?? new Dictionary<string, IOpenApiSchema>(StringComparer.Ordinal))
            Bound(of, property, type is nameof(Grams) or nameof(Millilitres) ? type : null);
    }
}
