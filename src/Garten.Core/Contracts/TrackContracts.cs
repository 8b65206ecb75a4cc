using Garten.Core.Grounds;

namespace Garten.Core.Contracts;

/// <summary>Keeps a piece of a track of a visit: what a receiver told since the piece before, or what a file has.</summary>
/// <param name="Id">Identity of the command, and of the piece.</param>
/// <param name="TrackId">The track that it is of, made by the device.</param>
/// <param name="SiteVisitId">The visit.</param>
/// <param name="Recorder">Whose receiver it was.</param>
/// <param name="StartedAt">The moment from which its seconds count, ISO 8601 with offset; empty where no time was kept.</param>
/// <param name="Points">Its positions, in the order of the walk; 1 to 5,000.</param>
/// <param name="Source">What told the positions: a receiver, or the name of a file.</param>
/// <param name="File">SHA-256 of the file that was sent before; empty for none.</param>
public sealed record KeepTrackCommand(
    Guid Id,
    Guid TrackId,
    Guid SiteVisitId,
    PersonReference Recorder,
    string StartedAt,
    IReadOnlyList<TrackPoint> Points,
    string Source,
    string File = ""
) : Command(Id);

/// <summary>Takes a track back: it leaves page, map and files, and stays among the facts.</summary>
/// <param name="Id">Identity of the command.</param>
/// <param name="SiteVisitId">The visit.</param>
/// <param name="TrackId">The track.</param>
public sealed record WithdrawTrackCommand(Guid Id, Guid SiteVisitId, Guid TrackId) : Command(Id);

/// <summary>Pieces of tracks that are to be put together.</summary>
/// <param name="Pieces">The pieces.</param>
public sealed record TracksRequest(IReadOnlyList<TrackPiece> Pieces)
{
    /// <summary>The tracks, in the order in which they began.</summary>
    public IReadOnlyList<Track> Tell() => Track.Of(Pieces ?? []);
}

/// <summary>A track on the map.</summary>
/// <param name="VisitId">Its visit.</param>
/// <param name="PlaceId">The place of that.</param>
/// <param name="Date">The day of the visit.</param>
/// <param name="Track">The track.</param>
public sealed record PlacedTrack(Guid VisitId, Guid PlaceId, DateOnly Date, Track Track);

/// <summary>A way out of a file, ready to be kept as a piece of a track.</summary>
/// <param name="Name">What the file calls it; may be empty.</param>
/// <param name="StartedAt">The moment from which its seconds count; empty where the file has no times.</param>
/// <param name="Points">Its positions, thinned.</param>
public sealed record TrackWay(string Name, string StartedAt, IReadOnlyList<TrackPoint> Points);

/// <summary>What was read of a file with tracks.</summary>
/// <param name="Hash">SHA-256 of the file: the original is kept under it once a track names it.</param>
/// <param name="Ways">Its ways.</param>
/// <param name="PointsInFile">How many positions the file has; more than the ways have where it was thinned.</param>
/// <param name="Problem">Why it can't be read, or what of it was left out, in a sentence; empty where nothing is wrong.</param>
public sealed record TrackFileRead(string Hash, IReadOnlyList<TrackWay> Ways, int PointsInFile, string Problem);

/// <summary>What a receiver said.</summary>
/// <param name="Lines">Its sentences (NMEA 0183), in their order.</param>
public sealed record NmeaRequest(IReadOnlyList<string> Lines)
{
    /// <summary>Most lines that are read at a time.</summary>
    public const int MostLines = 1_000;

    /// <summary>The positions in them, and whether the receiver said last that it has none.</summary>
    /// <exception cref="RequestException">These are too many.</exception>
    public NmeaAnswer Read()
    {
        if (Lines is not { Count: <= MostLines })
            throw new RequestException("lines", $"Up to {MostLines} lines are read at a time.");
        var reader = new NmeaReader();
        List<PositionFix> fixes = [.. Lines.Select(reader.Read).OfType<PositionFix>()];
        return new NmeaAnswer(fixes, reader.IsLost);
    }
}

/// <summary>What a receiver's sentences come to.</summary>
/// <param name="Fixes">The positions.</param>
/// <param name="IsLost">Whether it said last that it has none.</param>
public sealed record NmeaAnswer(IReadOnlyList<PositionFix> Fixes, bool IsLost);
