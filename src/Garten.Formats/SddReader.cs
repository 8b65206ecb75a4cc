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

    private const int MostElements = 6_000_000;

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
        FloraReading Refused(string code, int line, string message) => new([], CharacterTable.Empty, [new(ProblemSeverity.Error, code, name, line, "", message)]);
        try
        {
            // First pass: nothing is built yet.
            using (var walk = XmlReader.Create(new MemoryStream(content, false), Settings))
            {
                for (var n = 0; walk.Read(); n++)
                {
                    if (n % 4096 == 0) stop.ThrowIfCancellationRequested();
                    if (walk.Depth > DeepestNesting) return Refused("sdd.depth", Line(walk), $"Elements are nested more than {DeepestNesting} deep: this is no SDD document.");
                    if (n > MostElements) return Refused("sdd.size", Line(walk), "There are more elements than any flora needs.");
                }
            }
            using var reader = XmlReader.Create(new MemoryStream(content, false), Settings);
            var root = XDocument.Load(reader, LoadOptions.SetLineInfo).Root!;
            var dataset = root.DescendantsAndSelf().FirstOrDefault(e => e.Name.LocalName == "Dataset");
            if (dataset is null || dataset.Name.NamespaceName != SddWriter.Namespace) return Refused("sdd.namespace", 1, $"This is no SDD document: there is no Dataset of the namespace {SddWriter.Namespace}.");
            return new Dataset(name, dataset).Read(seasons, stop);
        }
        catch (XmlException error)
        {
            var dtd = error.Message.Contains("DTD", StringComparison.Ordinal) || error.Message.Contains("entity", StringComparison.OrdinalIgnoreCase);
            if (error.Message.Contains("MaxCharacters", StringComparison.Ordinal)) return Refused("sdd.size", error.LineNumber, $"The document is longer than {LongestDocument / 1_000_000} million characters.");
            return Refused(dtd ? "sdd.entities" : "sdd.xml", error.LineNumber, dtd ? "The document has a document type or entities of its own. They aren't read, since they may point anywhere; take them out." : $"This is no sound XML: {error.Message}");
        }
    }

    private static int Line(XmlReader reader) => reader is IXmlLineInfo info ? info.LineNumber : 0;

    private sealed class Dataset(string name, XElement dataset)
    {
        private readonly List<FloraProblem> _problems = [];
        private readonly Dictionary<string, Character> _characters = new(StringComparer.Ordinal);
        private readonly Dictionary<string, (string Character, string State)> _states = new(StringComparer.Ordinal);
        private readonly Dictionary<string, double> _modifiers = new(StringComparer.Ordinal);
        private readonly HashSet<string> _ids = new(StringComparer.Ordinal);
        private readonly HashSet<string> _misreadings = new(StringComparer.Ordinal);

        public FloraReading Read(IReadOnlyList<PhaseWindow> seasons, CancellationToken stop)
        {
            Modifiers();
            foreach (var element in Named(dataset, "Characters").Elements()) Character(element);
            var taxa = new Dictionary<string, Taxon>(StringComparer.Ordinal);
            var ids = new HashSet<string>(StringComparer.Ordinal);
            var names = new HashSet<string>(StringComparer.Ordinal);
            foreach (var element in Named(dataset, "TaxonNames").Elements().Where(e => e.Name.LocalName == "TaxonName"))
            {
                var label = Label(element);
                var canonical = element.Elements().FirstOrDefault(e => e.Name.LocalName == "CanonicalName")?.Value.Trim() is { Length: > 0 } plain ? plain : label;
                var authorship = label.StartsWith(canonical, StringComparison.Ordinal) ? label[canonical.Length..].Trim() : "";
                if (canonical.Length == 0)
                {
                    Wrong(ProblemSeverity.Error, "taxon.missing", element, "This taxon name has no label.");
                    continue;
                }
                if (!names.Add(canonical)) Wrong(ProblemSeverity.Error, "taxon.twice", element, $"{canonical} is there twice.");
                var id = Own(element, canonical);
                for (var n = 2; !ids.Add(id); n++) id = $"{Own(element, canonical)}-{n}";
                var rank = element.Elements().FirstOrDefault(e => e.Name.LocalName == "Rank")?.Attribute("literal")?.Value ?? "";
                taxa[Id(element)] = new Taxon(id, canonical, authorship, rank.Length > 0 ? rank : canonical.Contains(' ', StringComparison.Ordinal) ? "species" : "genus", "", "", "", [], "", TaxonFacts.None);
            }
            var byGenus = taxa.Values.Where(t => t.Rank == "genus").GroupBy(t => t.Name, StringComparer.Ordinal).ToDictionary(g => g.Key, g => g.First().Id, StringComparer.Ordinal);
            foreach (var (key, taxon) in taxa.ToList())
            {
                if (taxon.Name.Split(' ') is [var genus, _, ..] && byGenus.TryGetValue(genus, out var parent)) taxa[key] = taxon with { Parent = parent };
            }
            var descriptions = new Dictionary<string, TaxonDescription>(StringComparer.Ordinal);
            foreach (var element in Named(dataset, "CodedDescriptions").Elements())
            {
                stop.ThrowIfCancellationRequested();
                var reference = element.Descendants().FirstOrDefault(e => e.Name.LocalName == "TaxonName")?.Attribute("ref")?.Value ?? "";
                if (!taxa.TryGetValue(reference, out var taxon))
                {
                    Wrong(ProblemSeverity.Error, "taxon.unknown", element, $"A description is of the taxon “{reference}”, which isn't among the taxon names.");
                    continue;
                }
                var cells = element.Elements().Where(e => e.Name.LocalName == "SummaryData").Elements().Select(e => Summary(e, taxon.Name)).OfType<CharacterDescription>().ToList();
                if (!descriptions.TryAdd(taxon.Id, new TaxonDescription(taxon.Id, [.. cells.DistinctBy(c => c.Character)]))) Wrong(ProblemSeverity.Error, "taxon.twice", element, $"{taxon.Name} is described twice.");
            }
            if (taxa.Count == 0) Wrong(ProblemSeverity.Error, "matrix.empty", dataset, "There are no taxon names.");
            return new FloraReading([.. taxa.Values.OrderBy(t => t.Name, StringComparer.Ordinal)], new CharacterTable([.. _characters.Values.DistinctBy(c => c.Id)], [.. descriptions.Values], seasons),
                [.. _problems.OrderByDescending(p => p.Severity).Take(FloraTables.MostProblems)]);
        }

        private void Modifiers()
        {
            foreach (var modifier in Named(dataset, "DescriptiveConcepts").Descendants().Where(e => e.Name.LocalName == "Modifier"))
            {
                var kind = modifier.Elements().FirstOrDefault(e => e.Name.LocalName == "ModifierClass")?.Value ?? "";
                if (kind.Contains("Misinterpretation", StringComparison.Ordinal)) _misreadings.Add(Id(modifier));
                var range = modifier.Elements().FirstOrDefault(e => e.Name.LocalName == "ProportionRange");
                if (range is not null && Number(range.Attribute("lowerestimate")?.Value) is { } low && Number(range.Attribute("upperestimate")?.Value) is { } high) _modifiers[Id(modifier)] = Math.Clamp((low + high) / 2, 0.01, 1);
                else if (Modality.Of(Label(modifier)) is { } share) _modifiers[Id(modifier)] = share;
            }
        }

        private void Character(XElement element)
        {
            var label = Label(element);
            var scale = element.Elements().FirstOrDefault(e => e.Name.LocalName == "MeasurementScale")?.Value ?? "";
            switch (element.Name.LocalName)
            {
                case "CategoricalCharacter":
                    var states = new List<CharacterState>();
                    var id = Own(element, label);
                    foreach (var state in element.Descendants().Where(e => e.Name.LocalName == "StateDefinition"))
                    {
                        var own = Own(state, Label(state));
                        if (states.Exists(s => s.Id == own)) own = $"{own}-{states.Count + 1}";
                        states.Add(new CharacterState(own, Label(state), Detail(state), [Label(state)]));
                        _states[Id(state)] = (Id(element), own);
                    }
                    Add(element, CharacterSheet.Plain(id, label, scale == "Ordinal" ? CharacterKind.Ordered : CharacterKind.Categorical, states, "") with { Definition = Detail(element) });
                    break;
                case "QuantitativeCharacter":
                    var unit = element.Descendants().FirstOrDefault(e => e.Name.LocalName == "MeasurementUnit")?.Descendants().FirstOrDefault(e => e.Name.LocalName is "Label" or "Text")?.Value.Trim() ?? "";
                    var kind = MeasureUnit.Named(unit) is { } known ? known.Kind == QuantityKind.Angle ? CharacterKind.Angle : CharacterKind.Length : scale == "Absolute" ? CharacterKind.Count : CharacterKind.Ratio;
                    Add(element, CharacterSheet.Plain(Own(element, label), label, kind, [], unit) with { Definition = Detail(element) });
                    break;
                default:
                    Wrong(ProblemSeverity.Warning, "sdd.unused", element, $"Characters of the kind {element.Name.LocalName} aren't used; “{label}” is left out.");
                    break;
            }
        }

        private void Add(XElement element, Character character)
        {
            if (!_ids.Add(character.Id)) Wrong(ProblemSeverity.Error, "character.twice", element, $"The character “{character.Id}” is there twice.");
            _characters[Id(element)] = character;
        }

        private CharacterDescription? Summary(XElement element, string taxon)
        {
            var reference = element.Attribute("ref")?.Value ?? "";
            if (!_characters.TryGetValue(reference, out var character))
            {
                if (element.Name.LocalName is "Categorical" or "Quantitative") Wrong(ProblemSeverity.Error, "character.unknown", element, $"{taxon} is described in the character “{reference}”, which isn't defined.");
                return null;
            }
            if (element.Elements().Any(e => e.Name.LocalName == "Status" && e.Attribute("code")?.Value is "NotApplicable")) return new CharacterDescription(character.Id, [], Applies: false);
            return character.IsQuantity ? Range(element, character, taxon) : States(element, character, taxon);
        }

        private CharacterDescription? States(XElement element, Character character, string taxon)
        {
            var shares = new List<(string State, double? Share)>();
            var misread = new List<string>();
            foreach (var state in element.Elements().Where(e => e.Name.LocalName == "State"))
            {
                if (!_states.TryGetValue(state.Attribute("ref")?.Value ?? "", out var known) || _characters[known.Character].Id != character.Id)
                {
                    Wrong(ProblemSeverity.Error, "state.unknown", state, $"{taxon} has a state “{state.Attribute("ref")?.Value}” that {character.Name} hasn't.");
                    continue;
                }
                var modifiers = state.Elements().Where(e => e.Name.LocalName == "Modifier").Select(m => m.Attribute("ref")?.Value ?? "").ToList();
                if (modifiers.Exists(_misreadings.Contains)) misread.Add(known.State);
                else shares.Add((known.State, modifiers.Select(m => _modifiers.TryGetValue(m, out var s) ? s : (double?)null).FirstOrDefault(s => s is not null)));
            }
            if (shares.Count == 0) return null;
            var marked = shares.Sum(s => s.Share ?? 0);
            var plain = shares.Count(s => s.Share is null);
            var rest = plain == 0 ? 0 : Math.Max(1 - marked, Modality.Often) / plain;
            var total = marked + rest * plain;
            return new CharacterDescription(character.Id, [.. shares.DistinctBy(s => s.State).Select(s => new StateShare(s.State, (s.Share ?? rest) / total))], Misread: misread.Count > 0 ? misread : null);
        }

        private CharacterDescription? Range(XElement element, Character character, string taxon)
        {
            var kind = character.Quantity;
            var factor = kind == QuantityKind.Length ? MeasureUnit.Named(character.Unit)?.Factor ?? 1 : 1;
            var measures = element.Elements().Where(e => e.Name.LocalName == "Measure").GroupBy(m => m.Attribute("type")?.Value ?? "", StringComparer.Ordinal)
                .ToDictionary(g => g.Key, g => Number(g.First().Attribute("value")?.Value) is { } v ? v * factor : (double?)null, StringComparer.Ordinal);
            double? Of(string type) => measures.GetValueOrDefault(type);
            var text = element.Elements().FirstOrDefault(e => e.Name.LocalName == "Note")?.Value.Trim() ?? "";
            var (min, low, high, max, mean, deviation) = (Of("Min"), Of("UMethLower"), Of("UMethUpper"), Of("Max"), Of("Mean"), Of("SD"));
            QuantityRange? range = null;
            if (low is { } l && high is { } h) range = new QuantityRange(kind, l.Equals(h) && kind == QuantityKind.Count ? RangeForm.Exactly : RangeForm.Between, l, h, min < l ? min : null, max > h ? max : null, text);
            else if (high is { } only && low is null && min is null) range = QuantityRange.UpTo(kind, only, text);
            else if (low is { } least && high is null && max is null) range = QuantityRange.MoreThan(kind, least, text);
            // The typical bounds hold 80 % of single readings: 1.2816 standard deviations to either side.
            else if (mean is { } m && deviation is { } s and > 0) range = new QuantityRange(kind, RangeForm.Between, Math.Max(m - 1.2816 * s, m / 20), m + 1.2816 * s, Text: text);
            else if (min is { } a && max is { } b) range = new QuantityRange(kind, RangeForm.Between, a, b, Text: text);
            else if ((mean ?? low ?? high ?? min ?? max) is { } one) range = QuantityRange.About(kind, one, text);
            if (range is null) return null;
            if (range.Contradiction() is { } wrong)
            {
                Wrong(ProblemSeverity.Warning, "cell.unreadable", element, $"{taxon}, {character.Name}: {wrong} The cell counts as unknown.");
                return null;
            }
            return new CharacterDescription(character.Id, [], range);
        }

        private void Wrong(ProblemSeverity severity, string code, XElement at, string message) => _problems.Add(new(severity, code, name, at is IXmlLineInfo line ? line.LineNumber : 0, "", message));

        private static XElement Named(XElement parent, string child) => parent.Elements().FirstOrDefault(e => e.Name.LocalName == child) ?? new XElement("none");

        private static string Id(XElement element) => element.Attribute("id")?.Value ?? "";

        private static string Own(XElement element, string label) => element.Attribute("debugid")?.Value is { Length: > 0 } own ? own : FloraTables.IdOf(label) is { Length: > 0 } id ? id : Id(element);

        private static string Label(XElement element) => element.Elements().FirstOrDefault(e => e.Name.LocalName == "Representation")?.Elements().FirstOrDefault(e => e.Name.LocalName == "Label")?.Value.Trim() ?? "";

        private static string Detail(XElement element) => element.Elements().FirstOrDefault(e => e.Name.LocalName == "Representation")?.Elements().FirstOrDefault(e => e.Name.LocalName == "Detail")?.Value.Trim() ?? "";

        private static double? Number(string? text) => double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var value) && double.IsFinite(value) ? value : null;
    }
}
