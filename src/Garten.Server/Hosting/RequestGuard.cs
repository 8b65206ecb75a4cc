using System.Text.Json;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.Extensions.Options;
using Microsoft.Net.Http.Headers;

namespace Garten.Server.Hosting;

/// <summary>
/// What no address takes, refused before any of them sees it: a body that is too large, in an unknown encoding, or that has a null where a
/// list wants something or a number that no double holds.
/// </summary>
internal static class RequestGuard
{
    // As deep as the JSON of any request may be nested.
    private const int Deepest = 64;

    // Of a body that is refused so much more is read and thrown away: who sends it is still writing, and would see a cut line and no
    // answer.
    private const long MostDiscarded = 64 << 20;
    private static readonly TimeSpan DiscardFor = TimeSpan.FromSeconds(20);

    // Bodies of this size and more are read so many at a time.
    private const long Large = 256 << 10;
    private const int LargeAtOnce = 6;
    private static readonly SemaphoreSlim LargeBodies = new(LargeAtOnce);
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);

    public static void UseRequestGuard(this WebApplication app)
    {
        var largest = app.Services.GetRequiredService<IOptions<ServerLimits>>().Value.LargestBody;
        app.Use(
            async (context, next) =>
            {
                var request = context.Request;
                // Files have a limit of their own where they are taken.
                if (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method) || request.HasFormContentType)
                {
                    if (UnknownEncoding(request) is { } form)
                        await Problems.Result(form).ExecuteAsync(context);
                    else
                        await next();
                    return;
                }
                if (context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
                    limit.MaxRequestBodySize = null;
                if (request.ContentLength > largest)
                {
                    await RefuseAsync(context, largest);
                    return;
                }
                if (UnknownEncoding(request) is { } encoding)
                {
                    await Problems.Result(encoding).ExecuteAsync(context);
                    return;
                }
                var isLarge = request.ContentLength is null or >= Large;
                if (isLarge && !await LargeBodies.WaitAsync(Patience, context.RequestAborted))
                    throw new BusyException();
                try
                {
                    var body = new MemoryStream((int)(request.ContentLength ?? 0));
                    if (!await CopyAsync(request.Body, body, largest, context.RequestAborted))
                    {
                        await RefuseAsync(context, largest);
                        return;
                    }
                    if (request.HasJsonContentType() && Unsound(body.GetBuffer().AsSpan(0, (int)body.Length)) is var (path, message))
                    {
                        await Problems.Result(400, "body.invalid", "The body can't be read.", message, path).ExecuteAsync(context);
                        return;
                    }
                    body.Position = 0;
                    request.Body = body;
                    await next();
                }
                finally
                {
                    if (isLarge)
                        LargeBodies.Release();
                }
            }
        );
    }

    // False where it is longer than any body may be.
    private static async Task<bool> CopyAsync(Stream from, MemoryStream to, long largest, CancellationToken stop)
    {
        var part = new byte[64 << 10];
        int read;
        while ((read = await from.ReadAsync(part, stop)) > 0)
        {
            if (to.Length + read > largest)
                return false;
            to.Write(part, 0, read);
        }
        return true;
    }

    /// <summary>Answers 413 when the sender has come to the end, or has sent more than anybody needs to.</summary>
    public static async Task RefuseAsync(HttpContext context, long largest)
    {
        await DiscardAsync(context);
        await Problems
            .Result(413, "body.too-large", "The request is too large.", $"Send at most {largest >> 20} MiB at a time.")
            .ExecuteAsync(context);
    }

    private static async Task DiscardAsync(HttpContext context)
    {
        using var enough = CancellationTokenSource.CreateLinkedTokenSource(context.RequestAborted);
        enough.CancelAfter(DiscardFor);
        var part = new byte[64 << 10];
        try
        {
            long sum = 0;
            int read;
            while (sum < MostDiscarded && (read = await context.Request.Body.ReadAsync(part, enough.Token)) > 0)
                sum += read;
        }
        catch (Exception error) when (error is OperationCanceledException or IOException or BadHttpRequestException)
        {
            // It is refused all the same.
        }
    }

    private static Core.Contracts.ProblemReport? UnknownEncoding(HttpRequest request)
    {
        if (!MediaTypeHeaderValue.TryParse(request.ContentType, out var type) || !type.Charset.HasValue)
            return null;
        return type.Charset.Value.Trim('"').ToUpperInvariant() is "UTF-8" or "UTF8" or "US-ASCII"
            ? null
            : new("The body isn't in an encoding that is taken.", 415, "body.encoding", "Send it in UTF-8.", "");
    }

    // Where a list holds a null, or a number is beyond every double; null where nothing is wrong, or where it isn't JSON at all: that is
    // said by whoever reads it.
    private static (string Path, string Message)? Unsound(ReadOnlySpan<byte> json)
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
                        return (PathOf(open, 0), $"There is nothing at {PathOf(open, 0)}: leave it out of the list.");
                }
                if (isInList)
                    open[^1] = open[^1] with { At = open[^1].At + 1 };
                if (reader.TokenType == JsonTokenType.Number && (!reader.TryGetDouble(out var number) || !double.IsFinite(number)))
                    return (PathOf(open, 1), $"The number at {PathOf(open, 1)} is beyond all that can be measured.");
                if (reader.TokenType is JsonTokenType.StartArray or JsonTokenType.StartObject)
                    open.Add((reader.TokenType == JsonTokenType.StartArray, 0, ""));
            }
        }
        catch (Exception error) when (error is JsonException or InvalidOperationException)
        {
            return null;
        }
        return null;
    }

    // The place that is read; in the innermost list so many were counted already.
    private static string PathOf(List<(bool IsList, int At, string Name)> open, int counted) =>
        "$"
        + string.Concat(open.Select((o, depth) => o.IsList ? $"[{(depth == open.Count - 1 ? o.At - counted : o.At - 1)}]" : $".{o.Name}"));
}
