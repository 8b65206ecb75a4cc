using Microsoft.AspNetCore.WebUtilities;

namespace Garten.Server.Hosting;

/// <summary>
/// Answers of the API leave whole or not at all: each is written out here first (small ones in memory, large ones in a file), so that an
/// error
/// on the way gives its problem and not half an answer, and a slow reader holds no connection of the database.
/// </summary>
internal static class WholeAnswers
{
    private const int InMemory = 256 << 10;

    // No answer is larger; a loop that never ends ends here.
    private const long Largest = 1L << 30;

    public static void UseWholeAnswers(this WebApplication app) =>
        app.Use(
            async (context, next) =>
            {
                if (!context.Request.Path.StartsWithSegments("/api", StringComparison.Ordinal))
                {
                    await next();
                    return;
                }
                var body = context.Response.Body;
                await using var whole = new FileBufferingWriteStream(InMemory, Largest);
                context.Response.Body = whole;
                try
                {
                    await next();
                }
                finally
                {
                    context.Response.Body = body;
                }
                if (whole.Length > 0)
                    await whole.DrainBufferAsync(body, context.RequestAborted);
            }
        );
}
