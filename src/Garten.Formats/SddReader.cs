using System.Globalization;
using System.Xml;
using System.Xml.Linq;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;
using Garten.Core.Seasons;
using Garten.Formats.Tables;

namespace Garten.Formats;

/// <summary>
/// Reads a flora from SDD 1.1. Document types, entities and external references are refused and never fetched; nesting and size are
/// bounded before anything is built.
/// </summary>
public static class SddReader
{
    /// <summary>Elements within elements: SDD needs a dozen.</summary>
    private const int DeepestNesting = 64;

    /// <summary>Characters of the document.</summary>
    public const long LongestDocument = 64_000_000;

    private const int MostElements = 8_000_000;

    // Within one taxon name, character or description; the largest flora has some 10,000 there.
    private const int MostElementsOfOne = 200_000;
    private const int MostAttributes = 64;
    private const int MostTaxa = SheetLimits.MostRows;
    private const int MostCharacters = 2 * SheetLimits.MostColumns;
    private const int MostStates = 100_000;
    private const int MostCells = SheetLimits.MostCells;

    private static readonly XmlReaderSettings Settings = new()
    {
        DtdProcessing = DtdProcessing.Prohibit,
        XmlResolver = null,
        MaxCharactersInDocument = LongestDocument,
        MaxCharactersFromEntities = 0,
        IgnoreComments = true,
        IgnoreProcessingInstructions = true,
    };

    /// <summary>Reads a document.</summary>
    /// <param name="name">What it is called in messages.</param>
    /// <param name="content">The document.</param>
    /// <param name="seasons">When the phenophases last.</param>
    /// <param name="stop">Ends the reading.</param>
    public static FloraReading Read(string name, byte[] content, IReadOnlyList<PhaseWindow> seasons, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(content);
        FloraReading Refused(string code, int line, string message) =>
            new([], CharacterTable.Empty, [new(ProblemSeverity.Error, code, name, line, "", message)]);
        try
        {
            // First pass: nothing is built yet.
            using (var walk = XmlReader.Create(new XmlGuard(new MemoryStream(content, false), MostAttributes), Settings))
            {
                var own = 0;
                for (var n = 0; walk.Read(); n++)
                {
                    if (n % 4096 == 0)
                        stop.ThrowIfCancellationRequested();
                    if (walk.Depth > DeepestNesting)
                        return Refused(
                            "sdd.depth",
                            Line(walk),
                            $"Elements are nested more than {DeepestNesting} deep: this is no SDD document."
                        );
                    if (n > MostElements)
                        return Refused("sdd.size", Line(walk), "There are more elements than any flora needs.");
                    own = walk.Depth <= DepthOfOne ? 0 : own + 1;
                    if (own > MostElementsOfOne)
                        return Refused(
                            "sdd.size",
                            Line(walk),
                            "A single taxon, character or description has more elements than any needs."
                        );
                }
            }
            return new Dataset(name, content).Read(seasons, stop);
        }
        catch (XmlGuardException error)
        {
            return Refused("sdd.size", 0, error.Message + " It isn't read.");
        }
        catch (XmlException error)
        {
            var dtd =
                error.Message.Contains("DTD", StringComparison.Ordinal)
                || error.Message.Contains("entity", StringComparison.OrdinalIgnoreCase);
            if (error.Message.Contains("MaxCharacters", StringComparison.Ordinal))
                return Refused(
                    "sdd.size",
                    error.LineNumber,
                    $"The document is longer than {LongestDocument / 1_000_000} million characters."
                );
            return Refused(
                dtd ? "sdd.entities" : "sdd.xml",
                error.LineNumber,
                dtd
                    ? "The document has a document type or entities of its own. They aren't read, since they may point anywhere; take them out."
                    : $"This is no sound XML: {error.Message}"
            );
        }
    }

    // Datasets 0, Dataset 1, Characters 2, a character 3.
    private const int DepthOfOne = 3;

    private static int Line(XmlReader reader) => reader is IXmlLineInfo info ? info.LineNumber : 0;

    // More of something than any flora needs.
    private sealed class TooManyException(string what) : Exception(what);

    // Read piece by piece, so that a large document doesn't stand in memory as a whole.
    private sealed class Dataset(string name, byte[] content)
    {
        private readonly List<FloraProblem> _problems = [];
        private readonly Dictionary<string, Character> _characters = new(StringComparer.Ordinal);
        private readonly Dictionary<string, (string Character, string State)> _states = new(StringComparer.Ordinal);
        private readonly Dictionary<string, double> _modifiers = new(StringComparer.Ordinal);
        private readonly HashSet<string> _ids = new(StringComparer.Ordinal);
        private readonly HashSet<string> _misreadings = new(StringComparer.Ordinal);

        private readonly OwnIds _taxonIds = new();
        private readonly Dictionary<string, Taxon> _taxa = new(StringComparer.Ordinal);
        private readonly HashSet<string> _names = new(StringComparer.Ordinal);
        private readonly Dictionary<string, TaxonDescription> _descriptions = new(StringComparer.Ordinal);
        private int _cells;

        public FloraReading Read(IReadOnlyList<PhaseWindow> seasons, CancellationToken stop)
        {
            FloraReading Refused(string code, int line, string message) =>
                new([], CharacterTable.Empty, [new(ProblemSeverity.Error, code, name, line, "", message)]);
            try
            {
                var found = Pieces(
                    (section, element) =>
                    {
                        switch (section)
                        {
                            case "DescriptiveConcepts":
                                Modifiers(element);
                                break;
                            case "Characters":
                                Character(element);
                                break;
                            case "TaxonNames" when element.Name.LocalName == "TaxonName":
                                TaxonName(element);
                                break;
                        }
                    },
                    stop
                );
                if (!found)
                    return Refused(
                        "sdd.namespace",
                        1,
                        $"This is no SDD document: there is no Dataset of the namespace {SddWriter.Namespace}."
                    );
                var byGenus = _taxa
                    .Values.Where(t => t.Rank == "genus")
                    .GroupBy(t => t.Name, StringComparer.Ordinal)
                    .ToDictionary(g => g.Key, g => g.First().Id, StringComparer.Ordinal);
                foreach (var (key, taxon) in _taxa.ToList())
                {
                    if (taxon.Name.Split(' ') is [var genus, _, ..] && byGenus.TryGetValue(genus, out var parent))
                        _taxa[key] = taxon with { Parent = parent };
                }
                Pieces(
                    (section, element) =>
                    {
                        if (section == "CodedDescriptions")
                            Described(element);
                    },
                    stop
                );
            }
            catch (TooManyException many)
            {
                return Refused("sdd.size", 0, many.Message);
            }
            if (_taxa.Count == 0)
                _problems.Add(new(ProblemSeverity.Error, "matrix.empty", name, 0, "", "There are no taxon names."));
            return new FloraReading(
                [.. _taxa.Values.OrderBy(t => t.Name, StringComparer.Ordinal)],
                new CharacterTable([.. _characters.Values.DistinctBy(c => c.Id)], [.. _descriptions.Values], seasons),
                [.. _problems.OrderByDescending(p => p.Severity).Take(FloraTables.MostProblems)]
            );
        }

        // The children of each section of the first dataset, one after the other; false where there is no dataset.
        private bool Pieces(Action<string, XElement> take, CancellationToken stop)
        {
            using var reader = XmlReader.Create(new XmlGuard(new MemoryStream(content, false), MostAttributes), Settings);
            var section = "";
            var depth = -1;
            while (!reader.EOF)
            {
                if (reader.NodeType != XmlNodeType.Element)
                {
                    // The first dataset is the one that is read.
                    if (depth >= 0 && reader.NodeType == XmlNodeType.EndElement && reader.Depth == depth)
                        return true;
                    reader.Read();
                    continue;
                }
                if (depth < 0)
                {
                    if (reader.LocalName == "Dataset")
                    {
                        if (reader.NamespaceURI != SddWriter.Namespace)
                            return false;
                        depth = reader.Depth;
                        if (reader.IsEmptyElement)
                            return true;
                    }
                    reader.Read();
                }
                else if (reader.Depth == depth + 1)
                {
                    section = reader.LocalName;
                    reader.Read();
                }
                else
                {
                    stop.ThrowIfCancellationRequested();
                    if (section is not ("DescriptiveConcepts" or "Characters" or "TaxonNames" or "CodedDescriptions"))
                    {
                        reader.Skip();
                        continue;
                    }
                    XElement element;
                    using (var own = reader.ReadSubtree())
                        element = XElement.Load(own, LoadOptions.SetLineInfo);
                    take(section, element);
                    reader.Read();
                }
            }
            return depth >= 0;
        }

        private void TaxonName(XElement element)
        {
            if (_taxa.Count >= MostTaxa)
                throw new TooManyException($"There are more than {MostTaxa} taxon names. Bring it in parts.");
            var label = Label(element);
            var canonical = element.Elements().FirstOrDefault(e => e.Name.LocalName == "CanonicalName")?.Value.Trim()
                is { Length: > 0 } plain
                ? plain
                : label;
            var authorship = label.StartsWith(canonical, StringComparison.Ordinal) ? label[canonical.Length..].Trim() : "";
            if (canonical.Length == 0)
            {
                Wrong(ProblemSeverity.Error, "taxon.missing", element, "This taxon name has no label.");
                return;
            }
            if (!_names.Add(canonical))
                Wrong(ProblemSeverity.Error, "taxon.twice", element, $"{canonical} is there twice.");
            var rank = element.Elements().FirstOrDefault(e => e.Name.LocalName == "Rank")?.Attribute("literal")?.Value ?? "";
            if (rank.Length == 0)
                rank =
                    canonical.Contains(' ', StringComparison.Ordinal) ? "species"
                    : Core.Floras.TaxonName.LooksLikeGenus(canonical) ? "genus"
                    : "taxon";
            _taxa[Id(element)] = new Taxon(
                _taxonIds.Take(Own(element, canonical)),
                canonical,
                authorship,
                rank,
                "",
                "",
                "",
                [],
                "",
                TaxonFacts.None
            );
        }

        private void Described(XElement element)
        {
            var reference = element.Descendants().FirstOrDefault(e => e.Name.LocalName == "TaxonName")?.Attribute("ref")?.Value ?? "";
            if (!_taxa.TryGetValue(reference, out var taxon))
            {
                Wrong(
                    ProblemSeverity.Error,
                    "taxon.unknown",
                    element,
                    $"A description is of the taxon “{reference}”, which isn't among the taxon names."
                );
                return;
            }
            var cells = element
                .Elements()
                .Where(e => e.Name.LocalName == "SummaryData")
                .Elements()
                .Select(e => Summary(e, taxon.Name))
                .OfType<CharacterDescription>()
                .DistinctBy(c => c.Character)
                .ToList();
            if ((_cells += cells.Count) > MostCells)
                throw new TooManyException($"There are more than {MostCells} cells. Bring it in parts.");
            if (!_descriptions.TryAdd(taxon.Id, new TaxonDescription(taxon.Id, cells)))
                Wrong(ProblemSeverity.Error, "taxon.twice", element, $"{taxon.Name} is described twice.");
        }

        private void Modifiers(XElement concept)
        {
            foreach (var modifier in concept.DescendantsAndSelf().Where(e => e.Name.LocalName == "Modifier"))
            {
                var kind = modifier.Elements().FirstOrDefault(e => e.Name.LocalName == "ModifierClass")?.Value ?? "";
                if (kind.Contains("Misinterpretation", StringComparison.Ordinal))
                    _misreadings.Add(Id(modifier));
                var range = modifier.Elements().FirstOrDefault(e => e.Name.LocalName == "ProportionRange");
                if (
                    range is not null
                    && Number(range.Attribute("lowerestimate")?.Value) is { } low
                    && Number(range.Attribute("upperestimate")?.Value) is { } high
                )
                    _modifiers[Id(modifier)] = Math.Clamp((low + high) / 2, 0.01, 1);
                else if (Modality.Of(Label(modifier)) is { } share)
                    _modifiers[Id(modifier)] = share;
            }
        }

        private void Character(XElement element)
        {
            if (_characters.Count >= MostCharacters)
                throw new TooManyException($"There are more than {MostCharacters} characters. Bring it in parts.");
            var label = Label(element);
            var scale = element.Elements().FirstOrDefault(e => e.Name.LocalName == "MeasurementScale")?.Value ?? "";
            switch (element.Name.LocalName)
            {
                case "CategoricalCharacter":
                    var states = new List<CharacterState>();
                    var stateIds = new OwnIds();
                    var id = Own(element, label);
                    foreach (var state in element.Descendants().Where(e => e.Name.LocalName == "StateDefinition"))
                    {
                        if (_states.Count >= MostStates)
                            throw new TooManyException($"There are more than {MostStates} states. Bring it in parts.");
                        var own = stateIds.Take(Own(state, Label(state)));
                        states.Add(new CharacterState(own, Label(state), Detail(state), [Label(state)]));
                        _states[Id(state)] = (Id(element), own);
                    }
                    Add(
                        element,
                        CharacterSheet.Plain(
                            id,
                            label,
                            scale == "Ordinal" ? CharacterKind.Ordered : CharacterKind.Categorical,
                            states,
                            ""
                        ) with
                        {
                            Definition = Detail(element),
                        }
                    );
                    break;
                case "QuantitativeCharacter":
                    var unit = element
                        .Descendants()
                        .FirstOrDefault(e => e.Name.LocalName == "MeasurementUnit")
                        ?.Descendants()
                        .FirstOrDefault(e => e.Name.LocalName is "Label" or "Text")
                        ?.Value.Trim()
                        ?? "";
                    var kind = MeasureUnit.Named(unit) is { } known
                        ? known.Kind == QuantityKind.Angle
                            ? CharacterKind.Angle
                            : CharacterKind.Length
                        : scale == "Absolute"
                            ? CharacterKind.Count
                            : CharacterKind.Ratio;
                    Add(element, CharacterSheet.Plain(Own(element, label), label, kind, [], unit) with { Definition = Detail(element) });
                    break;
                default:
                    Wrong(
                        ProblemSeverity.Warning,
                        "sdd.unused",
                        element,
                        $"Characters of the kind {element.Name.LocalName} aren't used; “{label}” is left out."
                    );
                    break;
            }
        }

        private void Add(XElement element, Character character)
        {
            if (!_ids.Add(character.Id))
                Wrong(ProblemSeverity.Error, "character.twice", element, $"The character “{character.Id}” is there twice.");
            _characters[Id(element)] = character;
        }

        private CharacterDescription? Summary(XElement element, string taxon)
        {
            var reference = element.Attribute("ref")?.Value ?? "";
            if (!_characters.TryGetValue(reference, out var character))
            {
                if (element.Name.LocalName is "Categorical" or "Quantitative")
                    Wrong(
                        ProblemSeverity.Error,
                        "character.unknown",
                        element,
                        $"{taxon} is described in the character “{reference}”, which isn't defined."
                    );
                return null;
            }
            if (element.Elements().Any(e => e.Name.LocalName == "Status" && e.Attribute("code")?.Value is "NotApplicable"))
                return new CharacterDescription(character.Id, [], Applies: false);
            return character.IsQuantity ? Range(element, character, taxon) : States(element, character, taxon);
        }

        private CharacterDescription? States(XElement element, Character character, string taxon)
        {
            var shares = new List<(string State, double? Share)>();
            var misread = new List<string>();
            foreach (var state in element.Elements().Where(e => e.Name.LocalName == "State"))
            {
                if (
                    !_states.TryGetValue(state.Attribute("ref")?.Value ?? "", out var known)
                    || _characters[known.Character].Id != character.Id
                )
                {
                    Wrong(
                        ProblemSeverity.Error,
                        "state.unknown",
                        state,
                        $"{taxon} has a state “{state.Attribute("ref")?.Value}” that {character.Name} hasn't."
                    );
                    continue;
                }
                var modifiers = state
                    .Elements()
                    .Where(e => e.Name.LocalName == "Modifier")
                    .Select(m => m.Attribute("ref")?.Value ?? "")
                    .ToList();
                if (modifiers.Exists(_misreadings.Contains))
                    misread.Add(known.State);
                else
                    shares.Add(
                        (
                            known.State,
                            modifiers
                                .Select(m => _modifiers.TryGetValue(m, out var s) ? s : (double?)null)
                                .FirstOrDefault(s => s is not null)
                        )
                    );
            }
            if (shares.Count == 0)
                return null;
            var marked = shares.Sum(s => s.Share ?? 0);
            var plain = shares.Count(s => s.Share is null);
            var rest = plain == 0 ? 0 : Math.Max(1 - marked, Modality.Often) / plain;
            var total = marked + rest * plain;
            return new CharacterDescription(
                character.Id,
                [.. shares.DistinctBy(s => s.State).Select(s => new StateShare(s.State, (s.Share ?? rest) / total))],
                Misread: misread.Count > 0 ? misread : null
            );
        }

        private CharacterDescription? Range(XElement element, Character character, string taxon)
        {
            var kind = character.Quantity;
            var factor = kind == QuantityKind.Length ? MeasureUnit.Named(character.Unit)?.Factor ?? 1 : 1;
            var measures = element
                .Elements()
                .Where(e => e.Name.LocalName == "Measure")
                .GroupBy(m => m.Attribute("type")?.Value ?? "", StringComparer.Ordinal)
                .ToDictionary(
                    g => g.Key,
                    g => Number(g.First().Attribute("value")?.Value) is { } v ? v * factor : (double?)null,
                    StringComparer.Ordinal
                );
            double? Of(string type) => measures.GetValueOrDefault(type);
            var text = element.Elements().FirstOrDefault(e => e.Name.LocalName == "Note")?.Value.Trim() ?? "";
            var (min, low, high, max, mean, deviation) = (Of("Min"), Of("UMethLower"), Of("UMethUpper"), Of("Max"), Of("Mean"), Of("SD"));
            QuantityRange? range = null;
            if (low is { } l && high is { } h)
                range = new QuantityRange(
                    kind,
                    l.Equals(h) && kind == QuantityKind.Count ? RangeForm.Exactly : RangeForm.Between,
                    l,
                    h,
                    min < l ? min : null,
                    max > h ? max : null,
                    text
                );
            else if (high is { } only && low is null && min is null)
                range = QuantityRange.UpTo(kind, only, text);
            else if (low is { } least && high is null && max is null)
                range = QuantityRange.MoreThan(kind, least, text);
            // The typical bounds hold 80 % of single readings: 1.2816 standard deviations to either side.
            else if (mean is { } m && deviation is { } s and > 0)
                range = new QuantityRange(kind, RangeForm.Between, Math.Max(m - 1.2816 * s, m / 20), m + 1.2816 * s, Text: text);
            else if (min is { } a && max is { } b)
                range = new QuantityRange(kind, RangeForm.Between, a, b, Text: text);
            else if ((mean ?? low ?? high ?? min ?? max) is { } one)
                range = QuantityRange.About(kind, one, text);
            if (range is null)
                return null;
            if (range.Contradiction() is { } wrong)
            {
                Wrong(
                    ProblemSeverity.Warning,
                    "cell.unreadable",
                    element,
                    $"{taxon}, {character.Name}: {wrong} The cell counts as unknown."
                );
                return null;
            }
            return new CharacterDescription(character.Id, [], range);
        }

        // Beyond these nobody reads on; the first errors are among them.
        private const int MostKept = 5_000;

        private void Wrong(ProblemSeverity severity, string code, XElement at, string message)
        {
            if (_problems.Count < MostKept)
                _problems.Add(new(severity, code, name, at is IXmlLineInfo line ? line.LineNumber : 0, "", message));
            else if (severity == ProblemSeverity.Error && _problems[^1].Severity != ProblemSeverity.Error)
                _problems[^1] = new(severity, code, name, 0, "", message);
        }

        private static string Id(XElement element) => element.Attribute("id")?.Value ?? "";

        private static string Own(XElement element, string label) =>
            element.Attribute("debugid")?.Value is { Length: > 0 } own ? own
            : FloraTables.IdOf(label) is { Length: > 0 } id ? id
            : Id(element);

        private static string Label(XElement element) =>
            element
                .Elements()
                .FirstOrDefault(e => e.Name.LocalName == "Representation")
                ?.Elements()
                .FirstOrDefault(e => e.Name.LocalName == "Label")
                ?.Value.Trim()
            ?? "";

        private static string Detail(XElement element) =>
            element
                .Elements()
                .FirstOrDefault(e => e.Name.LocalName == "Representation")
                ?.Elements()
                .FirstOrDefault(e => e.Name.LocalName == "Detail")
                ?.Value.Trim()
            ?? "";

        private static double? Number(string? text) =>
            double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var value) && double.IsFinite(value) ? value : null;
    }
}
