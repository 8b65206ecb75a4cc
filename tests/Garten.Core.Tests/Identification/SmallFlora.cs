using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Core.Tests.Identification;

/// <summary>A few made-up taxa, small enough to be worked out by hand.</summary>
internal static class SmallFlora
{
    public static readonly PhaseWindow[] Seasons =
    [
        new(Phenophase.Flower, 4, 1, 8, 31),
        new(Phenophase.RipeFruit, 9, 1, 10, 31),
        new(Phenophase.FullLeaf, 5, 1, 9, 30),
    ];

    public static Character States(string id, Organ organ, params string[] states) =>
        new(
            id,
            id,
            organ,
            CharacterKind.Categorical,
            [.. states.Select(s => new CharacterState(s, s, "", [s]))],
            [id],
            [],
            0.9,
            0.9,
            10,
            Tool.Eye,
            Handling.Look,
            []
        );

    public static Character Length(string id) =>
        new(id, id, Organ.Leaf, CharacterKind.Length, [], [id], [], 0.9, 0.9, 20, Tool.Ruler, Handling.Look, []);

    public static CharacterDescription Is(Character character, params (string State, double Share)[] states) =>
        new(character.Id, [.. states.Select(s => new StateShare(s.State, s.Share))]);

    public static CharacterDescription Is(Character character, string state) => Is(character, (state, 1d));

    public static CharacterDescription Lacks(Character character) => new(character.Id, [], null, null, false);

    public static CharacterDescription Measures(Character character, string notation) =>
        new(character.Id, [], RangeNotation.Read(notation, character.Quantity).Ranges[0]);

    public static Taxon Taxon(string id, TaxonFacts? facts = null, string rank = "species", string family = "Alvenaceae") =>
        new(id, id.Replace('-', ' '), "", rank, "", family, "", [], "", facts);

    public static TaxonDescription Describe(string id, params CharacterDescription[] cells) => new(id, cells);

    public static Sifter Sieve(
        IReadOnlyList<Character> characters,
        IReadOnlyList<TaxonDescription> described,
        IReadOnlyList<Taxon>? taxa = null,
        SiftOptions? options = null
    ) => new(FloraColumns.Of(characters, described), taxa ?? [.. described.Select(d => Taxon(d.Taxon))], Seasons, options);

    public static Observation See(Character character, params string[] states) =>
        new(Guid.NewGuid(), character.Id, Outcome.Seen, states, false, [], 0, 0, Sureness.Sure, new(), Tool.Eye, "2026-06-01", "");

    public static Observation Read(Character character, params double[] values) =>
        See(character) with
        {
            Readings = [.. values.Select(v => new Reading(v, "", 0))],
        };
}
