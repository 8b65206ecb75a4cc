using System.Globalization;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Server.Commands;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Plants;

namespace Garten.Server.Features.Evidence;

/// <summary>Looks at a plant that can be kept.</summary>
/// <param name="All">All of them.</param>
/// <param name="Known">Those at characters that are known here: with these something can be worked out.</param>
internal sealed record NewLooks(IReadOnlyList<Observation> All, IReadOnlyList<Observation> Known);

/// <summary>Checks the looks at a plant that come with a command.</summary>
internal sealed class LookCheck(CharacterTable glossary)
{
    /// <summary>The looks that are new, each sound; those that are kept already must be of this plant. One at a character that isn't known
    /// here (the device has a newer flora, or the database was set back) is kept where it is well formed.</summary>
    /// <exception cref="CommandRefusedException">One can't be kept; the field says which.</exception>
    public async Task<NewLooks> NewAsync(
        CommandContext context,
        Guid plantId,
        PlantRow? tagged,
        IReadOnlyList<Observation>? observations,
        CancellationToken stop
    )
    {
        var looks = observations ?? [];
        if (looks.Count > Limits.MostObservations)
            throw Refusal.Of(
                422,
                "observations.too-many",
                "These are too many observations.",
                $"Send at most {Limits.MostObservations} at a time.",
                "observations"
            );
        if (looks.Count == 0)
            return new NewLooks([], []);
        var known = await EvidenceRepository.KnownAsync(context.Connection, [.. looks.Select(o => o.Id)], stop);
        var table = await FloraRepository.TableAsync(context.Connection, glossary, stop);
        var today = context.LatestDay;
        var (ids, unknown) = (new HashSet<Guid>(), new HashSet<Guid>());
        for (var i = 0; i < looks.Count; i++)
        {
            var field = string.Create(CultureInfo.InvariantCulture, $"observations[{i}]");
            var look = looks[i];
            if (look.Id == Guid.Empty || !ids.Add(look.Id))
                throw Refusal.Of(
                    422,
                    "observation.id",
                    "An observation needs an id of its own.",
                    "Make a new UUID (version 7) for each.",
                    field
                );
            if (known.TryGetValue(look.Id, out var plant))
            {
                if (plant != plantId)
                    throw Refusal.Of(
                        409,
                        "observation.plant",
                        "This observation is of another plant.",
                        "Make a new observation for this plant.",
                        field
                    );
                continue;
            }
            var character = table.Find(look.Character);
            var isUnknown = EvidenceSheet.IsUnknown(look, character);
            if (isUnknown)
                unknown.Add(look.Id);
            if ((isUnknown ? EvidenceSheet.ProblemOfForm(look, today) : EvidenceSheet.Problem(look, character, today)) is { } wrong)
                throw Refusal.Of(422, "observation.invalid", "An observation can't be kept.", wrong, field);
            if (!look.Withdrawn)
                PlantCheck.NotBeforeTag(tagged, DateOnly.ParseExact(look.Date, "yyyy-MM-dd", CultureInfo.InvariantCulture), field);
            Check.Text(look.Note, field, "The note", Limits.LongestNote, required: false);
        }
        IReadOnlyList<Observation> all = [.. looks.Where(o => !known.ContainsKey(o.Id))];
        return new NewLooks(all, unknown.Count == 0 ? all : [.. all.Where(o => !unknown.Contains(o.Id))]);
    }
}
