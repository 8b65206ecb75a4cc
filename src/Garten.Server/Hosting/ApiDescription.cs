using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Garten.Core.Contracts;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Garten.Server.Hosting;

/// <summary>What is worked out of a value and written beside it is always there: only what a caller may leave out isn't required.</summary>
internal sealed class WorkedOutProperties : IOpenApiSchemaTransformer
{
    public Task TransformAsync(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken cancellationToken)
    {
        if (context.JsonPropertyInfo is not null || context.JsonTypeInfo.Kind != JsonTypeInfoKind.Object)
            return Task.CompletedTask;
        foreach (var property in context.JsonTypeInfo.Properties)
        {
            if (
                property.AssociatedParameter is { IsMemberInitializer: false }
                || schema.Properties?.TryGetValue(property.Name, out var made) != true
            )
                continue;
            (schema.Required ??= new HashSet<string>()).Add(property.Name);
            if (!property.IsGetNullable && made is OpenApiSchema { Type: { } type } own)
                own.Type = type & ~JsonSchemaType.Null;
        }
        return Task.CompletedTask;
    }
}

/// <summary>
/// What the description of the API says besides the addresses: requests and answers of every call of the core, of those too that only the
/// browser's worker is asked (schema <c>CoreCalls</c>, a property per call), and the words that pages show (<c>x-words</c>). The web app's
/// types and words are made of it.
/// </summary>
internal sealed class ApiDescription : IOpenApiDocumentTransformer
{
    public async Task TransformAsync(
        OpenApiDocument document,
        OpenApiDocumentTransformerContext context,
        CancellationToken cancellationToken
    )
    {
        document.Info.Title = "Garten";
        document.Info.Description = "Keys, records and their exports. Errors are problem details (RFC 9457) with a stable code.";
        document.Info.Version = "1";
        document.Servers = [];
        var calls = new OpenApiSchema
        {
            Type = JsonSchemaType.Object,
            Description = "The calls of the core, each with its request and its answer; the browser's worker answers all of them.",
            Properties = new Dictionary<string, IOpenApiSchema>(),
            Required = new HashSet<string>(),
        };
        foreach (var call in CoreCalls.All)
        {
            calls.Properties[call.Name] = new OpenApiSchema
            {
                Type = JsonSchemaType.Object,
                Description = call.Summary,
                Required = new HashSet<string> { "request", "answer" },
                Properties = new Dictionary<string, IOpenApiSchema>
                {
                    ["request"] = Named(document, await context.GetOrCreateSchemaAsync(call.RequestType, null, cancellationToken)),
                    ["answer"] = Named(document, await context.GetOrCreateSchemaAsync(call.AnswerType, null, cancellationToken)),
                },
            };
            calls.Required.Add(call.Name);
        }
        document.AddComponent("CoreCalls", calls);
        document.Extensions ??= new Dictionary<string, IOpenApiExtension>();
        document.Extensions["x-words"] = new JsonNodeExtension(PageWords.Json());
        // Where a word may be missing its place says so; the words themselves are never null.
        foreach (var schema in document.Components?.Schemas?.Values ?? [])
        {
            if (schema.Enum is not { } words)
                continue;
            for (var i = words.Count - 1; i >= 0; i--)
            {
                if (words[i] is null || words[i]!.GetValueKind() == JsonValueKind.Null)
                    words.RemoveAt(i);
            }
        }
    }

    // A schema that is made here stands whole where it is used: each part that has a name goes among the components, once.
    private static IOpenApiSchema Named(OpenApiDocument document, IOpenApiSchema given)
    {
        if (given is not OpenApiSchema schema)
            return given;
        // What may be missing is one of the type or nothing; the type itself is never null.
        if (schema.Metadata?.Remove(IsNullable) == true)
        {
            return new OpenApiSchema { OneOf = [new OpenApiSchema { Type = JsonSchemaType.Null }, Named(document, schema)] };
        }
        var id = schema.Metadata?.TryGetValue(SchemaId, out var name) == true && name is string { Length: > 0 } text ? text : null;
        if (id is not null && document.Components?.Schemas?.ContainsKey(id) == true)
            return new OpenApiSchemaReference(id, document);
        // Before its parts: one of them may be of the same type.
        if (id is not null)
            document.AddComponent(id, schema);
        foreach (var (property, of) in schema.Properties?.ToList() ?? [])
            schema.Properties![property] = Named(document, of);
        if (schema.Items is { } items)
            schema.Items = Named(document, items);
        if (schema.AdditionalProperties is { } others)
            schema.AdditionalProperties = Named(document, others);
        for (var i = 0; i < (schema.OneOf?.Count ?? 0); i++)
            schema.OneOf![i] = Named(document, schema.OneOf[i]);
        for (var i = 0; i < (schema.AnyOf?.Count ?? 0); i++)
            schema.AnyOf![i] = Named(document, schema.AnyOf[i]);
        return id is null ? schema : new OpenApiSchemaReference(id, document);
    }

    // Where the framework notes that a property may be null: the schema of its type is shared with others.
    private const string IsNullable = "x-is-nullable-property";

    // Where the framework notes the name that a schema has among the components.
    private const string SchemaId = "x-schema-id";
}
