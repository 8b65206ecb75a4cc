using Garten.Core.Contracts;
using Garten.Core.Surveys.SiteVisits;
using Garten.Server.Commands;

namespace Garten.Server.Features.SiteVisits;

/// <summary>What several commands check of a visit.</summary>
internal static class SiteVisitCheck
{
    /// <summary>What takes turns on a visit.</summary>
    public static string LockOf(Guid visit) => $"site-visit:{visit}";

    public static CommandRefusedException Unknown() =>
        Refusal.Of(422, "visit.unknown", "No visit has this id.", "Begin the visit first.", "siteVisitId");

    public static void Times(string startedAt, string endedAt, IReadOnlyList<VisitPause> pauses)
    {
        if (VisitEffort.Problem(startedAt, endedAt, pauses) is var (field, wrong))
            throw Refusal.Of(422, "visit.times", "The times of the visit can't be so.", wrong, field);
    }
}
