using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Core.Tests.Identification;

/// <summary>A flora as chance would have it, with all that floras have: gaps, parts that are lacking, twins, forms, ranges of every kind,
/// sheets that make no sense.</summary>
internal sealed class AnyFlora
{
    private readonly Random _random;

    public AnyFlora(int seed)
    {
        _random = new Random(seed);
        Characters = [.. Enumerable.Range(0, _random.Next(1, 9)).Select(AnyCharacter)];
        var described = new List<TaxonDescription>();
        for (var t = _random.Next(0, 9); t > 0; t--)
        {
            // Now and then two are described alike.
            if (described.Count > 0 && _random.Next(5) == 0)
                described.Add(described[^1] with { Taxon = $"t{described.Count}" });
            else
                described.Add(new TaxonDescription($"t{described.Count}", [.. Characters.Where(_ => _random.Next(5) > 0).Select(AnyCell)]));
        }
        Taxa = [.. described.Select(d => AnyTaxon(d.Taxon))];
        Described = described;
        Sifter = new Sifter(FloraColumns.Of(Characters, described), Taxa, SmallFlora.Seasons);
    }

    /// <summary>Checks something of so many floras, the same ones at every run; what fails names its seed.</summary>
    public static void Each(int floras, Action<int> check)
    {
        for (var seed = 0; seed < floras; seed++)
        {
            try
            {
                check(seed);
            }
            catch (Exception error)
            {
                throw new InvalidOperationException($"With seed {seed}: {error.Message}", error);
            }
        }
    }

    public IReadOnlyList<Character> Characters { get; }

    public IReadOnlyList<TaxonDescription> Described { get; }

    public IReadOnlyList<Taxon> Taxa { get; }

    public Sifter Sifter { get; }

    private T One<T>(params T[] of) => of[_random.Next(of.Length)];

    private Character AnyCharacter(int at)
    {
        var kind = One(
            CharacterKind.Categorical,
            CharacterKind.Categorical,
            CharacterKind.Ordered,
            CharacterKind.Length,
            CharacterKind.Count,
            CharacterKind.Ratio,
            CharacterKind.Angle
        );
        CharacterState[] states = kind is CharacterKind.Categorical or CharacterKind.Ordered
            ?
            [
                .. Enumerable
                    .Range(0, _random.Next(1, 5))
                    .Select(s => new CharacterState(s == 0 && at % 3 == 0 ? "none" : $"s{s}", $"state {s}", "", [])),
            ]
            : [];
        return new Character(
            $"c{at}",
            $"character {at}",
            One(Organ.Leaf, Organ.Flower, Organ.Fruit, Organ.Twig, Organ.Site),
            kind,
            states,
            [],
            [],
            One(0.7, 0.9, 0.97),
            0.9,
            One(5, 20, 120),
            One(Tool.Eye, Tool.Lens, Tool.Ruler, Tool.Microscope),
            One(Handling.Look, Handling.TakeAPiece, Handling.Uproot),
            One<IReadOnlyList<Phenophase>>([], [Phenophase.Flower], [Phenophase.RipeFruit, Phenophase.FruitPersisting]),
            Unit: kind == CharacterKind.Length ? "mm" : ""
        );
    }

    private CharacterDescription AnyCell(Character character)
    {
        if (_random.Next(8) == 0)
            return new CharacterDescription(character.Id, [], null, null, false);
        if (!character.IsQuantity)
        {
            var shares = character.States.Select(_ => _random.Next(4)).ToArray();
            if (shares.Sum() == 0)
                shares[0] = 1;
            return new CharacterDescription(
                character.Id,
                [.. character.States.Select((s, i) => new StateShare(s.Id, (double)shares[i] / shares.Sum())).Where(s => s.Share > 0)]
            );
        }
        return new CharacterDescription(
            character.Id,
            [],
            AnyRange(character.Quantity),
            character.Quantity == QuantityKind.Length && _random.Next(4) == 0 ? AnyRange(QuantityKind.Length) : null
        );
    }

    private QuantityRange AnyRange(QuantityKind kind)
    {
        double Number() => kind == QuantityKind.Count ? _random.Next(1, 30) : Math.Round(0.2 + _random.NextDouble() * 80, 2);
        double[] b = [Number(), Number(), Number(), Number()];
        Array.Sort(b);
        return _random.Next(6) switch
        {
            0 => QuantityRange.UpTo(kind, b[3]),
            1 => QuantityRange.MoreThan(kind, b[0]),
            2 => QuantityRange.About(kind, b[1]),
            3 => new QuantityRange(kind, RangeForm.Between, b[1], b[2], b[0], b[3]),
            4 when kind == QuantityKind.Count => new QuantityRange(kind, RangeForm.Exactly, b[0], b[0]),
            _ => new QuantityRange(kind, RangeForm.Between, b[0], b[3]),
        };
    }

    private Taxon AnyTaxon(string id)
    {
        TaxonFacts? facts =
            _random.Next(4) == 0
                ? null
                : TaxonFacts.None with
                {
                    Cells = One<IReadOnlyList<string>>([], ["B2"], ["C3", "D4"]),
                    Habitats = One<IReadOnlyList<string>>([], ["hedge"]),
                    ElevationFrom = One<int?>(null, 0, 200),
                    ElevationTo = One<int?>(null, 250, 600),
                    Phenology = One<IReadOnlyList<PhaseSpan>>(
                        [],
                        [new(Phenophase.Flower, 9, 12)],
                        [new(Phenophase.Flower, 23, 2), new(Phenophase.RipeFruit, 17, 20)]
                    ),
                    LookAlikes = One<IReadOnlyList<string>>([], ["t0"], ["t1", "no-such-taxon"]),
                    GrowthForm = One("", "shrub", "herb"),
                };
        var cautions = One<IReadOnlyList<Caution>>([], [], [Caution.Protected], [Caution.Poisonous, Caution.Irritant]);
        return new Taxon(
            id,
            $"{One("Genella", "Alvena")} {id}",
            "",
            One("species", "species", "subspecies", "hybrid", "cultivar"),
            "",
            One("", "Alvenaceae"),
            "",
            cautions,
            cautions.Count > 0 ? "Mind it." : "",
            facts
        );
    }

    /// <summary>Looks as people make them: sure and not, of shade and of the neighbour, twice, contradicting each other, of things that
    /// aren't there.</summary>
    public IReadOnlyList<Observation> AnySheet() =>
        [.. Enumerable.Range(0, _random.Next(0, 9)).Select(_ => AnyLook(Characters[_random.Next(Characters.Count)]))];

    private Observation AnyLook(Character character)
    {
        var context = new ObservationContext(
            Light: One(Light.Unsaid, Light.Shade),
            Stage: One(Stage.Unsaid, Stage.Sapling),
            Shaping: One(Shaping.Unsaid, Shaping.Unsaid, Shaping.Browsed),
            Attachment: One(Attachment.Unsaid, Attachment.PerhapsNeighbours, Attachment.Beneath),
            Crowns: One(CrownsAbove.Unsaid, CrownsAbove.Two)
        );
        var look = new Observation(
            new Guid(_random.Next(), 0, 0, 0, 0, 0, 0, 0, 0, 0, 0),
            character.Id,
            Outcome.Seen,
            [],
            false,
            [],
            0,
            0,
            One(Sureness.Sure, Sureness.Fairly, Sureness.Guess),
            context,
            Tool.Eye,
            One("2026-06-01", "2026-12-10"),
            One("", "A note.")
        );
        if (_random.Next(12) == 0)
            return look with { Outcome = One(Outcome.NotFound, Outcome.OutOfReach) };
        if (character.IsQuantity)
            return look with
            {
                Readings =
                [
                    .. Enumerable
                        .Range(0, _random.Next(1, 5))
                        .Select(_ => new Reading(
                            character.Kind == CharacterKind.Count ? _random.Next(0, 40) : 0.1 + _random.NextDouble() * 120,
                            "",
                            0.1
                        )),
                ],
            };
        var states = character.States.Where(_ => _random.Next(3) == 0).Select(s => s.Id).ToList();
        if (states.Count == 0)
            states.Add(character.States[0].Id);
        return look with { States = states, Together = states.Count > 1 && _random.Next(2) == 0, Show = 0, Of = 0 };
    }

    /// <summary>Anything that may be asked of a list.</summary>
    public SiftQuery AnyQuery() =>
        new(
            AnySheet(),
            _random.Next(2) == 0,
            One<SiftPlace?>(null, new SiftPlace("B2", 100, ["hedge"]), new SiftPlace("F9", 900, ["bog"]), new SiftPlace()),
            One<DateOnly?>(null, new DateOnly(2026, 6, 1), new DateOnly(2026, 1, 1)),
            One<IReadOnlyCollection<Tool>?>(null, [], [Tool.Lens, Tool.Ruler]),
            One(Handling.Look, Handling.Cut, Handling.Uproot),
            One<IReadOnlyCollection<Organ>?>(null, [Organ.Flower]),
            One<IReadOnlyCollection<string>?>(null, ["c0"]),
            One(
                null,
                null,
                new Narrowing(),
                new Narrowing(Taxa: ["t0", "t2"]),
                new Narrowing(Families: ["Alvenaceae"], RecordedHere: true),
                new Narrowing(GrowthForms: ["shrub"]),
                new Narrowing(Genera: ["Genella"])
            ),
            One<int?>(null, null, 0, 2),
            One<IReadOnlyCollection<string>?>(null, [], ["t1"])
        );
}
