namespace Garten.Server.Hosting;

internal static class Security
{
    // Emotion writes style elements; everything else comes from files of the application.
    private const string ContentSecurityPolicy =
        "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self'; connect-src 'self'; "
        + "worker-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    public static void UseGartenSecurity(this WebApplication app)
    {
        app.Use(
            async (context, next) =>
            {
                var headers = context.Response.Headers;
                headers.ContentSecurityPolicy = ContentSecurityPolicy;
                headers.XContentTypeOptions = "nosniff";
                headers["Referrer-Policy"] = "no-referrer";
                headers["Cross-Origin-Opener-Policy"] = "same-origin";
                headers["Permissions-Policy"] = "camera=(), microphone=(), payment=(), usb=()";
                if (context.Request.Path.StartsWithSegments("/api", StringComparison.Ordinal))
                    headers.CacheControl = "no-store";
                if (ComesFromElsewhere(context.Request))
                {
                    await Problems
                        .Result(
                            403,
                            "origin",
                            "This request comes from another site.",
                            "Only pages of this server may change anything here."
                        )
                        .ExecuteAsync(context);
                    return;
                }
                await next();
            }
        );
    }

    // A page of another site that is open in the same browser must not write here, though both run on this machine.
    private static bool ComesFromElsewhere(HttpRequest request)
    {
        if (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method))
            return false;
        if (request.Headers["Sec-Fetch-Site"].ToString() is "cross-site" or "same-site")
            return true;
        var origin = request.Headers.Origin.ToString();
        return origin.Length > 0 && !string.Equals(origin, $"{request.Scheme}://{request.Host}", StringComparison.OrdinalIgnoreCase);
    }
}
