namespace Garten.Server.Hosting;

/// <summary>A binary answer that is asked for again and again and changes seldom: it is sent where the one that the caller has is an older
/// one.</summary>
internal static class PackedAnswer
{
    public const string Type = "application/octet-stream";

    public static IResult Of(HttpContext context, string hash, Func<byte[]> packed)
    {
        var tag = $"\"{hash}\"";
        context.Response.Headers.ETag = tag;
        context.Response.Headers.CacheControl = "no-cache";
        return context.Request.Headers.IfNoneMatch.ToString() == tag ? Results.StatusCode(304) : Results.Bytes(packed(), Type);
    }
}
