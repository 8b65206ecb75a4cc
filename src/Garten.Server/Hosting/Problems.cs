using Garten.Core.Contracts;
using Microsoft.AspNetCore.Diagnostics;
using Npgsql;

namespace Garten.Server.Hosting;

/// <summary>Errors as problem details with a stable code; nothing a client sends is answered with a bare status.</summary>
internal static partial class Problems
{
    // What may pass is tried again after so many seconds.
    private const string RetrySeconds = "5";

    public static IResult Result(ProblemReport problem) => new Answer(problem);

    // Says with a 503 when to try again.
    private sealed class Answer(ProblemReport problem) : IResult
    {
        public Task ExecuteAsync(HttpContext httpContext)
        {
            if (problem.Status == StatusCodes.Status503ServiceUnavailable)
                httpContext.Response.Headers.RetryAfter = RetrySeconds;
            return Results.Json(problem, contentType: "application/problem+json", statusCode: problem.Status).ExecuteAsync(httpContext);
        }
    }

    public static IResult Result(int status, string code, string title, string detail, string field = "") =>
        Result(new ProblemReport(title, status, code, detail, field));

    public static IResult Unusable(RequestException wrong) =>
        Result(wrong.IsUnknown ? 404 : 422, wrong.Code, "Something in the request can't be used.", wrong.Message, wrong.Field);

    public static void UseGartenProblems(this WebApplication app)
    {
        app.UseExceptionHandler(handler =>
            handler.Run(async context =>
            {
                var error = context.Features.Get<IExceptionHandlerFeature>()?.Error;
                // Nobody waits for the answer any more.
                if (error is OperationCanceledException && context.RequestAborted.IsCancellationRequested)
                    return;
                var problem = Of(error);
                if (problem.Status == StatusCodes.Status503ServiceUnavailable)
                    Away(app.Logger, context.Request.Method, context.Request.Path, error!.Message);
                else if (problem.Status >= 500)
                    Failed(app.Logger, error, context.Request.Method, context.Request.Path);
                context.Response.Headers.CacheControl = "no-store";
                await Result(problem).ExecuteAsync(context);
            })
        );
        app.UseStatusCodePages(async pages =>
        {
            var response = pages.HttpContext.Response;
            if (!pages.HttpContext.Request.Path.StartsWithSegments("/api", StringComparison.Ordinal))
                return;
            var (code, title) = response.StatusCode switch
            {
                404 => ("not-found", "There is nothing at this address."),
                405 => ("method", "This address doesn't take that method."),
                415 => ("body.type", "The body isn't of a type that this address takes."),
                _ => ("request", "The request can't be answered."),
            };
            await Result(response.StatusCode, code, title, "See the description of the API at /api/v1/openapi.json.")
                .ExecuteAsync(pages.HttpContext);
        });
    }

    /// <summary>
    /// Whether an error of the database may pass by itself: a lost connection, too few resources (disk, memory, connections), a deadlock, a
    /// lock
    /// that isn't to be had, a server that stops or only reads. By the classes of SQLSTATE.
    /// </summary>
    public static bool MayPass(Exception error) =>
        error switch
        {
            PostgresException { SqlState: var state } => state[..2] is "08" or "53" or "57" or "58"
                || state
                    is PostgresErrorCodes.SerializationFailure
                        or PostgresErrorCodes.DeadlockDetected
                        or PostgresErrorCodes.LockNotAvailable
                        or PostgresErrorCodes.ReadOnlySqlTransaction
                        or PostgresErrorCodes.InFailedSqlTransaction,
            NpgsqlException or TimeoutException => true,
            _ => false,
        };

    /// <summary>The problem that an error is answered with.</summary>
    public static ProblemReport Of(Exception? error) =>
        error switch
        {
            BadHttpRequestException { StatusCode: StatusCodes.Status413PayloadTooLarge } => new(
                "The request is too large.",
                413,
                "body.too-large",
                "Send less at a time."
            ),
            BadHttpRequestException { StatusCode: StatusCodes.Status415UnsupportedMediaType } => new(
                "The body isn't of a type that this address takes.",
                415,
                "body.type",
                "Send JSON with the content type application/json."
            ),
            BadHttpRequestException { InnerException: System.Text.Json.JsonException json } => new(
                "The body can't be read.",
                400,
                "body.invalid",
                Where(json),
                json.Path ?? ""
            ),
            BadHttpRequestException { StatusCode: StatusCodes.Status408RequestTimeout } => new(
                "The request came too slowly.",
                408,
                "request.slow",
                "Send it again."
            ),
            BadHttpRequestException bad => new("The request can't be read.", bad.StatusCode, "request.invalid", bad.Message),
            // The rest of a body that was announced never came.
            IOException => new("The request ended before it was whole.", 400, "request.cut", "Nothing was changed. Send it again, whole."),
            // A command that doesn't say of which kind it is.
            NotSupportedException { Source: "System.Text.Json" } => new(
                "The body can't be read.",
                400,
                "body.invalid",
                "Something in it doesn't say of what kind it is: give it a “kind” that this address takes."
            ),
            // The database keeps every character but NUL.
            PostgresException { SqlState: PostgresErrorCodes.CharacterNotInRepertoire or PostgresErrorCodes.UntranslatableCharacter } =>
                new(
                    "A text holds a character that can't be kept.",
                    400,
                    "text.binary",
                    "Nothing was changed. There is a NUL character in it; type it again."
                ),
            PostgresException { SqlState: PostgresErrorCodes.UniqueViolation } => new(
                "Something of this identity is there already.",
                409,
                "identity.taken",
                "Nothing was changed. Make a new id for something new."
            ),
            PostgresException
            {
                SqlState: PostgresErrorCodes.ForeignKeyViolation
                    or PostgresErrorCodes.CheckViolation
                    or PostgresErrorCodes.NumericValueOutOfRange
            } => new(
                "This contradicts what is kept.",
                409,
                "facts.disagree",
                "Nothing was changed. Look at it again; what it belongs to was written differently meanwhile."
            ),
            PostgresException { SqlState: PostgresErrorCodes.DiskFull } => new(
                "The database's disk is full.",
                503,
                "database.full",
                "Nothing was changed. It is tried again; room must be made on the server."
            ),
            PostgresException { SqlState: PostgresErrorCodes.ReadOnlySqlTransaction } => new(
                "The database only answers, it keeps nothing just now.",
                503,
                "database.read-only",
                "Nothing was changed. Try again in a moment; the page does so by itself."
            ),
            BusyException => new(
                "Too much is asked at once.",
                503,
                "server.busy",
                "Nothing was changed. Try again in a moment; the page does so by itself."
            ),
            NpgsqlException { InnerException: TimeoutException } => new(
                "The database is slow.",
                503,
                "database.slow",
                "Nothing was changed. Try again in a moment; the page does so by itself."
            ),
            PostgresException other when !MayPass(other) => new(
                "Something went wrong here.",
                500,
                "server.error",
                "Nothing was changed. The server's log says more."
            ),
            NpgsqlException or TimeoutException => new(
                "The database doesn't answer.",
                503,
                "database.unavailable",
                "Nothing was changed. Try again when it is back; the page does so by itself."
            ),
            _ => new("Something went wrong here.", 500, "server.error", "Nothing was changed. The server's log says more."),
        };

    private static string Where(System.Text.Json.JsonException json) =>
        json.LineNumber is { } line
            ? $"It isn't the JSON that this address takes (line {line + 1}, byte {json.BytePositionInLine + 1}{(json.Path is { Length: > 1 } path ? $", at {path}" : "")})."
            : "It isn't the JSON that this address takes.";

    [LoggerMessage(LogLevel.Warning, "{Method} {Path}: the database doesn't answer ({Reason})")]
    private static partial void Away(ILogger log, string method, PathString path, string reason);

    [LoggerMessage(LogLevel.Error, "{Method} {Path} failed")]
    private static partial void Failed(ILogger log, Exception? error, string method, PathString path);
}
