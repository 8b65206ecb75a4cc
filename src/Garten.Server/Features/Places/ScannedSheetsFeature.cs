using System.Globalization;
using Garten.Core.Contracts;
using Garten.Core.Grounds;
using Garten.Server.Database;
using Garten.Server.Hosting;
using Npgsql;

namespace Garten.Server.Features.Places;

/// <summary>Scanned maps that are laid under the drawn one.</summary>
internal sealed class ScannedSheetsFeature : IFeature
{
    private const string Problem = "application/problem+json";

    // A sheet at 300 dots an inch comes to some 10 MB.
    private const int LargestBytes = 30 << 20;
    private const int MostSheets = 50;
    private const int LongestName = 200;
    private const int LongestField = 1 << 10;

    private static readonly (string Type, byte[] Start)[] Types =
    [
        ("image/png", [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A]),
        ("image/jpeg", [0xFF, 0xD8, 0xFF]),
    ];

    public void Map(RouteGroupBuilder api)
    {
        api.MapGet("/map/sheets", async (NpgsqlDataSource database, CancellationToken stop) =>
            {
                await using var connection = await database.OpenConnectionAsync(stop);
                return TypedResults.Ok<IReadOnlyList<ScannedSheet>>(
                    await connection
                        .Command(
                            """
                            select id, name, south, west, north, east, top_left_latitude, top_left_longitude
                            from map_sheet order by name, id
                            """
                        )
                        .ReadAllAsync(
                            r => new ScannedSheet(
                                r.GetGuid(0),
                                r.GetString(1),
                                new GroundPoint(r.GetDouble(2), r.GetDouble(3)),
                                new GroundPoint(r.GetDouble(4), r.GetDouble(5)),
                                r.IsDBNull(6) ? null : new GroundPoint(r.GetDouble(6), r.GetDouble(7))
                            ),
                            stop
                        )
                );
            })
            .WithName("listMapSheets")
            .WithSummary("Scanned maps that can be laid under the drawn one.");

        api.MapGet("/map/sheets/{id:guid}", async (Guid id, NpgsqlDataSource database, CancellationToken stop) =>
            {
                await using var connection = await database.OpenConnectionAsync(stop);
                var found = await connection
                    .Command("select content, media_type from map_sheet where id = $1", id)
                    .ReadAllAsync(r => (Content: r.GetFieldValue<byte[]>(0), Type: r.GetString(1)), stop);
                return found is [var sheet]
                    ? Results.File(sheet.Content, sheet.Type)
                    : Problems.Result(404, "sheet.unknown", "There is no such sheet.", "Choose one of the list.", "id");
            })
            .Produces<byte[]>(200, "image/png", "image/jpeg")
            .Produces<ProblemReport>(404, Problem)
            .WithName("getMapSheet")
            .WithSummary("The picture of a scanned map.");

        api.MapDelete("/map/sheets/{id:guid}", async (Guid id, NpgsqlDataSource database, CancellationToken stop) =>
            {
                await using var connection = await database.OpenConnectionAsync(stop);
                await connection.Command("delete from map_sheet where id = $1", id).RunAsync(stop);
                return Results.NoContent();
            })
            .Produces(204)
            .WithName("removeMapSheet")
            .WithSummary("Takes a scanned map away.");

        api.MapPost("/map/sheets", BringAsync)
            .Produces<ScannedSheet>()
            .Produces<ProblemReport>(400, Problem)
            .Produces<ProblemReport>(413, Problem)
            .Produces<ProblemReport>(415, Problem)
            .Produces<ProblemReport>(422, Problem)
            .Accepts<IFormFile>("multipart/form-data")
            .WithName("bringMapSheet")
            .WithSummary(
                "Brings a scanned map: the file “file” (PNG or JPEG, at most 30 MiB), its “name”, and where it lies in decimal degrees "
                    + "(WGS 84): “south” and “west” of its bottom left corner, “north” and “east” of its top right one, and of a sheet "
                    + "that hasn't north at its top “topLeftLatitude” and “topLeftLongitude” of its top left one."
            );
    }

    private static async Task<IResult> BringAsync(
        HttpRequest request,
        NpgsqlDataSource database,
        TimeProvider clock,
        Turnstile turns,
        CancellationToken stop
    )
    {
        const string expected = "Send multipart/form-data with the file “file”, its “name” and its corners.";
        using var turn = await turns.UploadAsync(stop);
        var (form, refusal) = await FormFiles.ReadAsync(request, LargestBytes, LongestField, expected, stop);
        if (form is null)
            return refusal!;
        if (form.Files["file"] is not { } file)
            return Problems.Result(400, "request.invalid", "The file is missing.", expected, "file");
        using var kept = new MemoryStream();
        await file.CopyToAsync(kept, stop);
        var content = kept.ToArray();
        if (Types.FirstOrDefault(t => content.AsSpan().StartsWith(t.Start)).Type is not { } type)
            return Problems.Result(422, "sheet.picture", "This is neither PNG nor JPEG.", "Save the scan as one of these.", "file");
        var name = form["name"].ToString().Trim();
        if (name.Length is 0 or > LongestName || name.Contains('\0', StringComparison.Ordinal))
            return Problems.Result(422, "sheet.name", "The sheet needs a name.", $"Give it up to {LongestName} characters.", "name");
        double? Of(string field) =>
            double.TryParse(form[field].ToString(), NumberStyles.Float, CultureInfo.InvariantCulture, out var it) ? it : null;
        if (Of("south") is not { } south || Of("west") is not { } west || Of("north") is not { } north || Of("east") is not { } east)
            return Problems.Result(422, "sheet.corners", "Its corners aren't said.", "Give them in decimal degrees.", "south");
        var isTurned = form.ContainsKey("topLeftLatitude") || form.ContainsKey("topLeftLongitude");
        var topLeft =
            isTurned && Of("topLeftLatitude") is { } latitude && Of("topLeftLongitude") is { } longitude
                ? new GroundPoint(latitude, longitude)
                : null;
        if (isTurned && topLeft is null)
            return Problems.Result(422, "sheet.corners", "Its third corner isn't said.", "Give it in decimal degrees.", "topLeft");
        var sheet = new ScannedSheet(Guid.CreateVersion7(), name, new GroundPoint(south, west), new GroundPoint(north, east), topLeft);
        if (sheet.Problem() is var (field, message, hint))
            return Problems.Result(422, "sheet.corners", message, hint, field);
        await using var connection = await database.OpenConnectionAsync(stop);
        var isKept =
            await connection
                .Command(
                    """
                    insert into map_sheet
                        (id, name, south, west, north, east, media_type, content, recorded_at, top_left_latitude, top_left_longitude)
                    select $1, $2, $3, $4, $5, $6, $7, $8, $9, $11, $12 where (select count(*) from map_sheet) < $10
                    """,
                    sheet.Id,
                    name,
                    south,
                    west,
                    north,
                    east,
                    type,
                    content,
                    clock.GetUtcNow(),
                    (long)MostSheets,
                    topLeft?.Latitude,
                    topLeft?.Longitude
                )
                .RunAsync(stop) == 1;
        return isKept
            ? Results.Ok(sheet)
            : Problems.Result(422, "sheet.many", "There are too many sheets.", $"Take one away first: {MostSheets} are kept.", "file");
    }
}
