namespace Garten.Server.Hosting;

/// <summary>
/// Marks an address that answers with exact positions and places, whatever the taxon: for one's own pages. What leaves the program is
/// coarsened
/// at other addresses.
/// </summary>
internal static class ExactPositions
{
    /// <summary>The header of its answers.</summary>
    public const string Header = "Garten-Positions";

    /// <summary>Marks it in its answers, and in the description of the API.</summary>
    public static RouteHandlerBuilder Exact(this RouteHandlerBuilder route) =>
        route
            .AddEndpointFilter(
                async (context, next) =>
                {
                    context.HttpContext.Response.Headers[Header] = "exact";
                    return await next(context);
                }
            )
            .WithDescription(
                "Exact: for one's own pages. It tells the places of sensitive taxa as they are; nothing of it is to be passed on."
            );
}
