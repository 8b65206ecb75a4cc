using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Seasons;
using Garten.Core.Surveys;

namespace Garten.Core.Contracts;

/// <summary>A place of which is asked what is in season there.</summary>
/// <param name="Id">The place.</param>
/// <param name="Name">Its name.</param>
/// <param name="Cell">Its grid cell; empty where it has none: then the whole list counts.</param>
public sealed record SeasonPlace(Guid Id, string Name, string Cell = "");

/// <summary>What is in season at some places on a day.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Places">The places.</param>
/// <param name="Firsts">What began this year on one's own plants.</param>
public sealed record InSeasonRequest(
    string FloraId,
    string Date,
    IReadOnlyList<SeasonPlace> Places,
    IReadOnlyList<SeasonFirst>? Firsts = null
) : IFloraRequest
{
    /// <summary>Places that are looked at: nobody reads more of them.</summary>
    public const int MostPlaces = 12;

    /// <summary>Tells of each, in their order, the first twelve.</summary>
    /// <exception cref="RequestException">Something in it can't be used.</exception>
    public IReadOnlyList<PlaceInSeason> Look(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var rows = new SeasonRequest(FloraId, Date, Firsts: Firsts).Look(flora).Rows;
        return
        [
            .. (Places ?? [])
                .Take(MostPlaces)
                .Select(place =>
                {
                    var here = rows.Where(r =>
                            string.IsNullOrEmpty(place.Cell)
                            || flora.Find(r.Taxon)?.Facts?.Cells.Contains(place.Cell, StringComparer.OrdinalIgnoreCase) == true
                        )
                        .ToList();
                    IReadOnlyList<NamedTaxon> Doing(string row) =>
                        [
                            .. here.Where(r => r.Year.Phases.Any(p => p.Now && PageWords.YearRows[row].Contains(p.Phase)))
                                .Select(r => new NamedTaxon(r.Taxon, r.Name)),
                        ];
                    return new PlaceInSeason(
                        place.Id,
                        place.Name,
                        Doing("flower"),
                        Doing("fruit"),
                        here.Count(r => r.Year.NameableNow),
                        here.Count
                    );
                }),
        ];
    }
}

/// <summary>A taxon by id and name.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its scientific name.</param>
public sealed record NamedTaxon(string Id, string Name);

/// <summary>What is in season at a place.</summary>
/// <param name="PlaceId">The place.</param>
/// <param name="Name">Its name.</param>
/// <param name="InFlower">What flowers.</param>
/// <param name="InFruit">What has fruit.</param>
/// <param name="Nameable">How many of its list can be named by what they show now.</param>
/// <param name="Listed">How many are on its list.</param>
public sealed record PlaceInSeason(
    Guid PlaceId,
    string Name,
    IReadOnlyList<NamedTaxon> InFlower,
    IReadOnlyList<NamedTaxon> InFruit,
    int Nameable,
    int Listed
);

/// <summary>A figure that is asked for.</summary>
/// <param name="Name">Scientific name of the taxon.</param>
/// <param name="Character">The character that it is to show; empty: what tells most on the day.</param>
public sealed record FigureAsked(string Name, string Character = "");

/// <summary>Small figures of taxa for a list: of each the organ that is asked for, or the one that tells most on a day.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Figures">What is to be drawn.</param>
/// <param name="Date">The day, <c>YYYY-MM-DD</c>.</param>
public sealed record FiguresRequest(string FloraId, IReadOnlyList<FigureAsked> Figures, string Date) : IFloraRequest
{
    /// <summary>Figures that are asked for at a time.</summary>
    public const int MostFigures = 500;

    /// <summary>Those that the flora describes, each once; other names are passed over.</summary>
    /// <exception cref="RequestException">The day is none, or there are too many.</exception>
    public IReadOnlyList<TaxonFigure> Draw(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        var day = DayOfYear.Of(RequestDay.Of(Date, "date"));
        if (Figures?.Count > MostFigures)
            throw new RequestException("figures", $"Up to {MostFigures} figures are drawn at a time.");
        var index = new TaxonIndex(flora.Pack.Taxa);
        var columns = flora.Sifter.Columns;
        List<TaxonFigure> drawn = [];
        foreach (var asked in (Figures ?? []).Distinct())
        {
            if (index.Find(asked.Name ?? "") is not { } taxon || columns.IndexOf(taxon.Id) < 0)
                continue;
            var organ = columns.Columns.FirstOrDefault(c => c.Character.Id == asked.Character)?.Character.Organ ?? OrganOn(taxon, day);
            drawn.Add(
                new TaxonFigure(
                    asked.Name!,
                    asked.Character ?? "",
                    taxon.Id,
                    organ,
                    [
                        .. columns
                            .Columns.Where(c => DrawnWith(organ).Contains(c.Character.Organ))
                            .Select(c => columns.Describe(taxon.Id, c.Character.Id))
                            .OfType<CharacterDescription>(),
                    ]
                )
            );
        }
        return drawn;
    }

    // What a drawing of an organ takes from the description besides: a flower stands in its inflorescence, a frond has the sori.
    private static Organ[] DrawnWith(Organ organ) =>
        organ switch
        {
            Organ.Flower or Organ.Inflorescence => [Organ.Habit, Organ.Inflorescence, Organ.Flower, Organ.Fruit],
            Organ.Fruit => [Organ.Habit, Organ.Inflorescence, Organ.Flower, Organ.Fruit, Organ.Leaf],
            Organ.Twig or Organ.Bud => [Organ.Habit, Organ.Twig, Organ.Bud],
            _ => [Organ.Habit, Organ.Leaf, Organ.Stem, organ],
        };

    // What one looks at first, by what there is on a day.
    private static readonly (Phenophase Phase, Organ Organ)[] First =
    [
        (Phenophase.Flower, Organ.Flower),
        (Phenophase.RipeFruit, Organ.Fruit),
        (Phenophase.YoungFruit, Organ.Fruit),
        (Phenophase.FullLeaf, Organ.Leaf),
        (Phenophase.RipeSpores, Organ.Leaf),
        (Phenophase.ShootsUp, Organ.Leaf),
        (Phenophase.AutumnColour, Organ.Leaf),
        (Phenophase.FruitPersisting, Organ.Fruit),
        (Phenophase.BareTwig, Organ.Twig),
        (Phenophase.RestingBud, Organ.Twig),
        (Phenophase.WinterGreen, Organ.Leaf),
        (Phenophase.DeadLeavesHeld, Organ.Leaf),
    ];

    /// <summary>The organ of a taxon that tells most on a day: its flower before its fruit before its leaf before its twig, as far as it
    /// has them then; the leaf where nothing is known of its year.</summary>
    /// <param name="taxon">The taxon.</param>
    /// <param name="day">Day of the year, 1 to 365.</param>
    public static Organ OrganOn(Taxon taxon, int day)
    {
        ArgumentNullException.ThrowIfNull(taxon);
        foreach (var (phase, organ) in First)
        {
            if (taxon.Facts?.Phenology.Any(s => s.Phase == phase && DayWindow.OfHalfMonths(s.From, s.To).Holds(day)) == true)
                return organ;
        }
        return Organ.Leaf;
    }
}

/// <summary>A taxon as a small figure.</summary>
/// <param name="Name">The name that was asked for.</param>
/// <param name="Character">The character that was asked for; empty where none was.</param>
/// <param name="TaxonId">The taxon that the flora has by this name.</param>
/// <param name="Organ">What of it to draw.</param>
/// <param name="Description">What it is like, as far as the drawing needs it.</param>
public sealed record TaxonFigure(
    string Name,
    string Character,
    string TaxonId,
    Organ Organ,
    IReadOnlyList<CharacterDescription> Description
);
