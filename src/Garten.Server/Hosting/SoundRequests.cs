using System.Text.Json;

namespace Garten.Server.Hosting;

/// <summary>What no address takes, refused before any of them sees it: a null where a list wants something.</summary>
internal static class SoundRequests
{
    // As deep as the JSON of any request may be nested.
    private const int Deepest = 64;

    public static void UseSoundRequests(this WebApplication app) => app.Use(async (context, next) =>
    {
        var request = context.Request;
        if (request.HasJsonContentType())
        {
            // Kestrel ends the reading of a body that is too large.
            var body = new MemoryStream();
            await request.Body.CopyToAsync(body, context.RequestAborted);
            if (Missing(body.GetBuffer().AsSpan(0, (int)body.Length)) is { } path)
            {
                await Problems.Result(400, "body.invalid", "The body can't be read.", $"There is nothing at {path}: leave it out of the list.", path).ExecuteAsync(context);
                return;
            }
            body.Position = 0;
            request.Body = body;
        }
        await next();
    });

    // Where a list holds a null; null where none does, or where it isn't JSON at all: that is said by whoever reads it.
    private static string? Missing(ReadOnlySpan<byte> json)
    {
        var reader = new Utf8JsonReader(json, new JsonReaderOptions { MaxDepth = Deepest });
        // Of every list that is open how many things stand in it before; of every object the property that is read.
        var open = new List<(bool IsList, int At, string Name)>();
        try
        {
            while (reader.Read())
            {
                var isInList = open is [.., { IsList: true }];
                switch (reader.TokenType)
                {
                    case JsonTokenType.EndArray or JsonTokenType.EndObject:
                        open.RemoveAt(open.Count - 1);
                        continue;
                    case JsonTokenType.PropertyName:
                        open[^1] = (false, 0, reader.GetString()!);
                        continue;
                    case JsonTokenType.Null when isInList:
                        return PathOf(open);
                }
                if (isInList) open[^1] = open[^1] with { At = open[^1].At + 1 };
                if (reader.TokenType is JsonTokenType.StartArray or JsonTokenType.StartObject) open.Add((reader.TokenType == JsonTokenType.StartArray, 0, ""));
            }
        }
        catch (Exception error) when (error is JsonException or InvalidOperationException)
        {
            return null;
        }
        return null;
    }

    private static string PathOf(List<(bool IsList, int At, string Name)> open) => "$" + string.Concat(open.Select((o, depth) => o.IsList ? $"[{(depth == open.Count - 1 ? o.At : o.At - 1)}]" : $".{o.Name}"));
}
