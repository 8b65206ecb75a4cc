using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Core.Keys;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Archive;

/// <summary>Everything recorded as a Darwin Core Archive.</summary>
internal sealed class ArchiveFeature : IFeature
{
    private const string Zip = "application/zip";

    public void Add(IServiceCollection services) => services.AddSingleton<ArchiveExport>();

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet(
                "/archive.zip",
                (Guid? place, string? licence, HttpContext context, ArchiveExport archive, Turnstile turns, CancellationToken stop) =>
                    SendAsync(place, licence, isExact: false, context, archive, turns, stop)
            )
            .Produces<byte[]>(200, Zip)
            .Produces<ProblemReport>(422, "application/problem+json")
            .Produces<ProblemReport>(503, "application/problem+json")
            .WithName("exportArchive")
            .WithSummary(
                "Visits, lists, what was sought in vain, plants and looks as a Darwin Core Archive. "
                    + "Sensitive taxa hang on coarse events of their own."
            );

        api.MapGet(
                "/exact/archive.zip",
                (Guid? place, string? licence, HttpContext context, ArchiveExport archive, Turnstile turns, CancellationToken stop) =>
                    SendAsync(place, licence, isExact: true, context, archive, turns, stop)
            )
            .Produces<byte[]>(200, Zip)
            .Produces<ProblemReport>(503, "application/problem+json")
            .Exact()
            .WithName("exportExactArchive")
            .WithSummary("The same with the exact places of sensitive taxa: only for one's own keeping, never to be passed on.");
    }

    private static async Task<IResult> SendAsync(
        Guid? place,
        string? licence,
        bool isExact,
        HttpContext context,
        ArchiveExport archive,
        Turnstile turns,
        CancellationToken stop
    )
    {
        var rights = TextLicence.Unsaid;
        if (licence is { Length: > 0 } && !PageWords.Licences.Keys.Any(l => IsCalled(rights = l, licence)))
            return Problems.Result(
                422,
                "archive.licence",
                "There is no such licence.",
                $"Give one of {string.Join(", ", PageWords.Licences.Keys.Select(Name))}.",
                "licence"
            );
        using var turn = await turns.ExportAsync(stop);
        return await WholeFiles.SendAsync(Zip, $"garten-archive{(isExact ? "-exact" : "")}.zip", async file =>
        {
            await archive.WriteAsync(file, new ArchiveScope(place, null), isExact, rights, stop);
            return null;
        });
    }

    private static bool IsCalled(TextLicence licence, string name) => string.Equals(Name(licence), name, StringComparison.Ordinal);

    private static string Name(TextLicence licence) => JsonNamingPolicy.CamelCase.ConvertName(licence.ToString());
}
