namespace Garten.Server.Hosting;

/// <summary>Pages that are made to be read or printed by themselves: nothing in them runs, and they fetch nothing.</summary>
internal static class PrintedPages
{
    private const string Policy =
        "default-src 'none'; style-src 'unsafe-inline'; img-src data:; form-action 'none'; base-uri 'none'; frame-ancestors 'self'";

    /// <summary>Answers with such a page.</summary>
    public static IResult Of(HttpContext context, string page)
    {
        context.Response.Headers.ContentSecurityPolicy = Policy;
        return Results.Content(page, "text/html; charset=utf-8");
    }
}
