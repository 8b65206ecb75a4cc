using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Formats.Shapes;
using Garten.Server.Features.Places;
using Garten.Server.Hosting;

namespace Garten.Server.Features.Tracks;

/// <summary>Tracks of visits: on the map, out of files and into them.</summary>
internal sealed class TracksFeature : IFeature
{
    private const string Problem = "application/problem+json";

    // As many as a map shows without a pause.
    private const int MostShown = 200;

    private const int MostWritten = 5_000;

    public void Add(IServiceCollection services) => services.AddSingleton<TrackRepository>();

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet("/map/tracks", async (Guid? place, TrackRepository tracks, CancellationToken stop) =>
                TypedResults.Ok(
                    (await tracks.ListAsync(place, null, MostShown, stop)).Select(t => t with { Track = TrackFile.Drawn(t.Track) }).ToList()
                )
            )
            .Exact()
            .WithName("listTracks")
            .WithSummary("Tracks of visits for a map, the newest first, thinned to their shape; up to 200.");

        api.MapPost("/tracks/files", async (HttpRequest request, TrackRepository tracks, Turnstile turns, CancellationToken stop) =>
            {
                using var turn = await turns.UploadAsync(stop);
                var (content, refusal) = await FormFiles.OneAsync(request, ShapeFile.LargestBytes, stop);
                if (content is null)
                    return refusal!;
                var read = TrackFile.Read(content);
                if (read.Ways.Count > 0)
                    await tracks.KeepFileAsync(read.Hash, content, stop);
                return Results.Ok(read);
            })
            .Produces<TrackFileRead>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(413, Problem)
            .Produces<ProblemReport>(415, Problem)
            .Accepts<IFormFile>("multipart/form-data")
            .WithName("readTrackFile")
            .WithSummary(
                "Ways out of a GPX, GeoJSON or KML file, the file “file” of a form, thinned; "
                    + "the original is kept once a track names it, else for a day."
            );

        api.MapGet("/tracks/files/{hash}", async (string hash, TrackRepository tracks, CancellationToken stop) =>
                hash.Length == 64 && hash.All(char.IsAsciiHexDigitLower) && await tracks.FileAsync(hash, stop) is { } content
                    ? Results.File(content, "application/octet-stream", $"track-{hash[..8]}.txt")
                    : Problems.Result(404, "track.file", "There is no such file.", "Choose the file of a track.", "hash")
            )
            .Produces<byte[]>(200, "application/octet-stream")
            .Produces<ProblemReport>(404, Problem)
            .Exact()
            .WithName("getTrackFile")
            .WithSummary("The file that a track came from, as it was.");

        foreach (var (ending, form) in ShapeWriter.Forms)
            api.MapGet(
                    $"/tracks.{ending}",
                    async (
                        Guid? place,
                        Guid? visit,
                        TrackRepository tracks,
                        PlaceRepository places,
                        Turnstile turns,
                        CancellationToken stop
                    ) =>
                    {
                        using var turn = await turns.ExportAsync(stop);
                        var names = (await places.ListAsync(stop)).ToDictionary(p => p.Id, p => p.Name);
                        var all = await tracks.ListAsync(place, visit, MostWritten, stop);
                        return await WholeFiles.SendAsync(ShapeWriter.TypeOf(form), $"garten-tracks.{ending}", file =>
                        {
                            ShapeWriter.Write(file, form, all.Select(t => Shape(t, names.GetValueOrDefault(t.PlaceId, ""))));
                            return Task.FromResult<ProblemReport?>(null);
                        });
                    }
                )
                .Produces<string>(200, ShapeWriter.TypeOf(form))
                .Produces<ProblemReport>(503, Problem)
                .Exact()
                .WithName($"exportTracks{char.ToUpperInvariant(ending[0])}{ending[1..]}")
                .WithSummary("Tracks of visits with their gaps left open; all of them, of a place, or of a visit.");
    }

    private static WrittenShape Shape(PlacedTrack placed, string place)
    {
        var track = placed.Track;
        var began = TrackPiece.Moment(track.StartedAt)?.UtcDateTime;
        return new WrittenShape(
            string.Create(CultureInfo.InvariantCulture, $"{place}, {placed.Date:yyyy-MM-dd}"),
            [],
            [
                ("kind", "track"),
                ("recorder", track.Recorder),
                ("source", track.Source),
                ("metres", track.Metres.ToString("0", CultureInfo.InvariantCulture)),
                ("gaps", track.Gaps.Count.ToString(CultureInfo.InvariantCulture)),
                ("visit", placed.VisitId.ToString()),
            ],
            [
                .. track.Segments.Select(
                    IReadOnlyList<WrittenStep> (way) =>
                        [
                            .. way.Select(p => new WrittenStep(
                                new GroundPoint(p.Latitude, p.Longitude),
                                began is { } at && p.Seconds is { } seconds ? at.AddSeconds(seconds) : null
                            )),
                        ]
                ),
            ]
        );
    }
}
