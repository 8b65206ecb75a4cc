using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;

namespace Garten.Server.Hosting;

/// <summary>Serves the built web app and the core for the browser.</summary>
internal static class WebApp
{
    public static void UseGartenWebApp(this WebApplication app)
    {
        if (app.Configuration["GARTEN_TODAY"] is { Length: > 0 })
            app.UseWhen(c => c.Request.Path == ServiceWorker, pinned => pinned.Run(Leave));
        if (Options(app) is { } options)
            app.UseStaticFiles(options);
    }

    /// <summary>Every address that is neither a file nor the API is a page of the app.</summary>
    public static void MapGartenPages(this WebApplication app)
    {
        if (Options(app) is not { } options)
            return;
        // The page takes its day from the server where that is pinned.
        if (app.Configuration["GARTEN_TODAY"] is { Length: > 0 } today)
        {
            var page = options.FileProvider!.GetFileInfo("index.html");
            using var reader = new StreamReader(page.CreateReadStream());
            var pinned = reader
                .ReadToEnd()
                .Replace(
                    "<head>",
                    $"<head><meta name=\"garten-today\" content=\"{System.Net.WebUtility.HtmlEncode(today)}\">",
                    StringComparison.Ordinal
                );
            app.MapFallback("/", () => Results.Content(pinned, "text/html; charset=utf-8"));
            app.MapFallback("{*path:nonfile:regex(^(?!api/))}", () => Results.Content(pinned, "text/html; charset=utf-8"));
            return;
        }
        app.MapFallbackToFile("/", "index.html", options);
        app.MapFallbackToFile("{*path:nonfile:regex(^(?!api/))}", "index.html", options);
    }

    private const string ServiceWorker = "/serviceWorker.js";

    // A page whose day is pinned comes from the server. What an earlier one without a pinned day has left on the device takes itself away.
    private static Task Leave(HttpContext context)
    {
        context.Response.ContentType = "text/javascript; charset=utf-8";
        context.Response.Headers.CacheControl = "no-cache";
        return context.Response.WriteAsync(
            """
            self.addEventListener("install", () => self.skipWaiting());
            self.addEventListener("activate", (event) =>
              event.waitUntil(
                self.registration
                  .unregister()
                  .then(() => self.clients.matchAll({ type: "window" }))
                  .then((pages) => Promise.all(pages.map((page) => page.navigate(page.url))))
              )
            );
            """,
            context.RequestAborted
        );
    }

    private static StaticFileOptions? Options(WebApplication app)
    {
        var folder = app.Configuration["GARTEN_WEB"] ?? "";
        if (!Directory.Exists(folder))
            return null;
        var types = new FileExtensionContentTypeProvider();
        types.Mappings[".wasm"] = "application/wasm";
        types.Mappings[".dat"] = "application/octet-stream";
        types.Mappings[".webmanifest"] = "application/manifest+json";
        return new StaticFileOptions
        {
            FileProvider = new PhysicalFileProvider(Path.GetFullPath(folder)),
            ContentTypeProvider = types,
            OnPrepareResponse = file =>
            {
                // Files with a fingerprint in their name never change; the others are asked for each time.
                var path = file.Context.Request.Path.Value ?? "";
                var hasFingerprint =
                    path.StartsWith("/assets/", StringComparison.Ordinal)
                    || (
                        path.StartsWith("/_framework/", StringComparison.Ordinal) && !path.EndsWith("/dotnet.js", StringComparison.Ordinal)
                    );
                file.Context.Response.Headers.CacheControl = hasFingerprint ? "public, max-age=31536000, immutable" : "no-cache";
            },
        };
    }
}
