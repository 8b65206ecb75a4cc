namespace Garten.Server.Hosting;

/// <summary>Lists in pages: the answer holds one page, and its header "Link" (RFC 8288) the address of the next one.</summary>
internal static class Paging
{
    /// <summary>Lines of a page where nobody says how many.</summary>
    public const int Usual = 200;

    /// <summary>Lines of the largest page.</summary>
    public const int Largest = 500;

    /// <summary>As many lines as asked for, within bounds.</summary>
    public static int SizeOf(int? asked) => Math.Clamp(asked ?? Usual, 1, Largest);

    /// <summary>Says where the next page is: the same question with where to go on; nothing on the last page.</summary>
    public static void LinkNext(HttpContext context, string? after)
    {
        if (after is null)
            return;
        var query = QueryString.Create(
            context
                .Request.Query.Where(q => !string.Equals(q.Key, "after", StringComparison.OrdinalIgnoreCase))
                .Select(q => KeyValuePair.Create<string, Microsoft.Extensions.Primitives.StringValues>(q.Key, q.Value))
        );
        context.Response.Headers.Link = $"<{context.Request.Path}{query.Add("after", after)}>; rel=\"next\"";
    }

    /// <summary>What is answered to an "after" that no page gave out.</summary>
    public static IResult NoPage() =>
        Problems.Result(400, "page.invalid", "This isn't the start of a page.", "Take it from the page before.", "after");
}
