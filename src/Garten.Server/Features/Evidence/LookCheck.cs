using System.Globalization;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Server.Commands;
using Garten.Server.Features.Floras;
using Garten.Server.Features.Plants;

namespace Garten.Server.Features.Evidence;

/// <summary>Checks the looks at a plant that come with a command.</summary>
internal sealed class LookCheck(CharacterTable glossary)
{
    /// <summary>The looks that are new, each sound; those that are kept already must be of this plant.</summary>
    /// <exception cref="CommandRefusedException">One can't be kept; the field says which.</exception>
    public async Task<IReadOnlyList<Observation>> NewAsync(
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
            return [];
        var known = await EvidenceRepository.KnownAsync(context.Connection, [.. looks.Select(o => o.Id)], stop);
        var table = await FloraRepository.TableAsync(context.Connection, glossary, stop);
        var today = context.LatestDay;
        var ids = new HashSet<Guid>();
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
            if (EvidenceSheet.Problem(look, table.Find(look.Character), today) is { } wrong)
                throw Refusal.Of(422, "observation.invalid", "An observation can't be kept.", wrong, field);
            if (!look.Withdrawn)
                PlantCheck.NotBeforeTag(tagged, DateOnly.ParseExact(look.Date, "yyyy-MM-dd", CultureInfo.InvariantCulture), field);
            Check.Text(look.Note, field, "The note", Limits.LongestNote, required: false);
        }
        return [.. looks.Where(o => !known.ContainsKey(o.Id))];
    }
}
