using Garten.Core.Confirmation;
using Garten.Core.Floras;
using Garten.Core.Grounds;
using Garten.Core.Seasons;
using Garten.Core.Surveys.SiteVisits;

namespace Garten.Core.Contracts;

/// <summary>What commands do to visits: on a device over what waits, as the server does with its facts.</summary>
public static class SiteVisitDocuments
{
    /// <summary>The visit that a command is about; null for another command.</summary>
    public static Guid? VisitOf(Command command) =>
        command switch
        {
            SaveSiteVisitCommand it => it.SiteVisitId,
            ListTaxonCommand it => it.SiteVisitId,
            WithdrawLineCommand it => it.SiteVisitId,
            CloseSiteVisitCommand it => it.SiteVisitId,
            KeepTrackCommand it => it.SiteVisitId,
            WithdrawTrackCommand it => it.SiteVisitId,
            _ => null,
        };

    /// <summary>A visit after a command; null before anything is known of it. What was done already changes nothing.</summary>
    /// <param name="id">The visit.</param>
    /// <param name="visit">What is known of it.</param>
    /// <param name="command">What was done.</param>
    /// <param name="places">The places.</param>
    public static SiteVisit? Apply(Guid id, SiteVisit? visit, Command command, IReadOnlyList<Place> places)
    {
        ArgumentNullException.ThrowIfNull(places);
        return command switch
        {
            SaveSiteVisitCommand it when it.SiteVisitId == id => Saved(visit, it, places),
            ListTaxonCommand it when it.SiteVisitId == id && visit is not null => visit.Lines.Any(l => l.Id == it.LineId)
                ? visit
                : visit with
                {
                    Lines = [.. visit.Lines, LineOf(it)],
                },
            WithdrawLineCommand it when it.SiteVisitId == id && visit is not null => visit with
            {
                Lines = [.. visit.Lines.Select(l => l.Id == it.LineId ? l with { IsWithdrawn = true } : l)],
            },
            CloseSiteVisitCommand it when it.SiteVisitId == id && visit is not null => visit with { Closing = it.Closing },
            KeepTrackCommand it when it.SiteVisitId == id && visit is not null => (visit.Tracks ?? []).Any(t => t.Id == it.Id)
                ? visit
                : visit with
                {
                    Tracks = [.. visit.Tracks ?? [], PieceOf(it)],
                },
            WithdrawTrackCommand it when it.SiteVisitId == id && visit is not null => WithoutTrack(visit, it.TrackId),
            // A plant that was named names its lines everywhere.
            RecordDeterminationCommand { Names: [var one] } it when visit is not null => visit with
            {
                Lines = [.. visit.Lines.Select(l => l.PlantId == it.PlantId ? l with { Name = one } : l)],
            },
            EraseCommand it when visit?.People.FirstOrDefault(p => p.Id == it.SubjectId) is { } person => visit with
            {
                People = [.. visit.People.Select(p => p == person ? person with { Name = Documents.ErasedName } : p)],
                Lines = [.. visit.Lines.Select(l => Without(l, person.Name))],
                Tracks = visit.Tracks is { } tracks
                    ? [.. tracks.Select(t => t.Recorder == person.Name ? t with { Recorder = Documents.ErasedName } : t)]
                    : null,
            },
            EraseCommand it when visit?.Lines.Any(l => l.Id == it.SubjectId || l.PlantId == it.SubjectId) == true => WithoutSubject(
                visit,
                it.SubjectId
            ),
            EraseCommand it when visit?.Planned?.Any(q => q.SubjectId == it.SubjectId) == true => WithoutSubject(visit, it.SubjectId),
            EraseCommand it when visit?.Tracks?.Any(t => t.TrackId == it.SubjectId) == true => WithoutTrack(visit, it.SubjectId),
            SavePlaceCommand { Version: not null }
            or MergePlaceCommand { IntoId: not null }
                when PlaceChanged(command) is var (of, now) && visit?.Place.Id == of && places.Standing(now) is { } place => visit with
            {
                Place = place,
            },
            _ => visit,
        };
    }

    private static ListLine Without(ListLine line, string person) =>
        line with
        {
            Recorder = line.Recorder == person ? Documents.ErasedName : line.Recorder,
            Details = line.Details with
            {
                Determiner = line.Details.Determiner == person ? "" : line.Details.Determiner,
                Typist = line.Details.Typist == person ? "" : line.Details.Typist,
            },
        };

    // What was erased: a line, or a plant with the lines and questions of it.
    private static SiteVisit WithoutSubject(SiteVisit visit, Guid subject) =>
        visit with
        {
            Lines = [.. visit.Lines.Where(l => l.Id != subject && l.PlantId != subject)],
            Planned = visit.Planned?.Where(q => q.SubjectId != subject).ToList() is { Count: > 0 } left ? left : null,
        };

    private static SiteVisit WithoutTrack(SiteVisit visit, Guid track) =>
        visit with
        {
            Tracks = [.. (visit.Tracks ?? []).Where(t => t.TrackId != track)],
        };

    /// <summary>The piece of a track that a command adds.</summary>
    public static TrackPiece PieceOf(KeepTrackCommand it)
    {
        ArgumentNullException.ThrowIfNull(it);
        return new(it.Id, it.TrackId, it.Recorder.Name, it.StartedAt, it.Source, it.Points, it.File);
    }

    /// <summary>The line that a command adds.</summary>
    public static ListLine LineOf(ListTaxonCommand it)
    {
        ArgumentNullException.ThrowIfNull(it);
        return new(
            it.LineId,
            it.Taxon,
            it.Unnamed,
            it.PlantId,
            it.Compartment,
            it.Recorder.Name,
            it.At,
            it.Details ?? LineDetails.None,
            it.Site?.Latitude,
            it.Site?.Longitude,
            it.Site?.UncertaintyMetres,
            it.Supersedes
        );
    }

    // The place that a command changes, and the one that stands in its stead; null for any other command.
    internal static (Guid Id, Guid Now)? PlaceChanged(Command command) =>
        command switch
        {
            SavePlaceCommand { Version: not null } it => (it.PlaceId, it.PlaceId),
            MergePlaceCommand { IntoId: { } into } it => (it.PlaceId, into),
            _ => null,
        };

    private static SiteVisit? Saved(SiteVisit? visit, SaveSiteVisitCommand it, IReadOnlyList<Place> places)
    {
        if (!DayText.TryRead(it.Date, out var day) || places.Standing(it.PlaceId) is not { } place)
            return visit;
        // A command of an earlier version has been carried out already.
        if (visit is not null && it.Version != visit.Version)
            return visit;
        if (visit is null && it.Version is not null)
            return null;
        return new SiteVisit(
            it.SiteVisitId,
            place,
            day,
            it.StartedAt,
            it.People,
            it.Purpose,
            it.Weather,
            it.Pauses ?? [],
            it.Safety,
            visit is null ? 1 : visit.Version + 1,
            visit?.Lines ?? [],
            visit?.Closing,
            visit?.Sensitive ?? [],
            DayText.TryRead(it.Until, out var until) && until > day ? until : null,
            visit is null ? [] : visit.Tracks,
            it.Planned ?? visit?.Planned
        );
    }
}
