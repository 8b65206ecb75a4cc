using System.Globalization;
using System.Xml;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Formats;

/// <summary>
/// Writes a flora as SDD 1.1 (Structured Descriptive Data, the TDWG standard; namespace http://rs.tdwg.org/UBIF/2006/): taxon names,
/// characters with states and units, coded descriptions with frequencies, ranges, "not applicable" and misreadings. Ids of the flora are
/// kept in <c>debugid</c>.
/// </summary>
public static class SddWriter
{
    /// <summary>The namespace of SDD.</summary>
    public const string Namespace = "http://rs.tdwg.org/UBIF/2006/";

    // The words of frequency as modifiers, with the share that each stands for.
    internal static readonly (string Id, string Label, double Share)[] Frequencies =
    [
        ("m1", "always", Modality.Always),
        ("m2", "usually", Modality.Usually),
        ("m3", "often", Modality.Often),
        ("m4", "sometimes", Modality.Sometimes),
        ("m5", "rarely", Modality.Rarely),
    ];

    internal const string MisreadModifier = "m9";

    /// <summary>Writes a flora.</summary>
    /// <param name="flora">The flora; descriptions as they were written, not completed from genera.</param>
    /// <param name="created">When the file is made.</param>
    /// <param name="to">Where it goes; stays open.</param>
    public static void Write(Flora flora, DateTimeOffset created, Stream to)
    {
        ArgumentNullException.ThrowIfNull(flora);
        using var xml = XmlWriter.Create(
            to,
            new XmlWriterSettings
            {
                Indent = true,
                CloseOutput = false,
                Encoding = new System.Text.UTF8Encoding(false),
            }
        );
        var table = flora.Table ?? CharacterTable.Empty;
        var taxa = flora.Taxa.Select((t, i) => (t.Id, Number: $"t{i + 1}")).ToDictionary(t => t.Id, t => t.Number, StringComparer.Ordinal);
        var characters = table
            .Characters.Select((c, i) => (c.Id, Number: $"c{i + 1}"))
            .ToDictionary(c => c.Id, c => c.Number, StringComparer.Ordinal);
        xml.WriteStartDocument();
        xml.WriteStartElement("Datasets", Namespace);
        xml.WriteStartElement("TechnicalMetadata");
        xml.WriteAttributeString("created", created.UtcDateTime.ToString("yyyy-MM-ddTHH:mm:ssZ", CultureInfo.InvariantCulture));
        Element(xml, "Generator", ("name", "Garten"), ("version", "1"));
        xml.WriteEndElement();
        xml.WriteStartElement("Dataset");
        xml.WriteAttributeString("xml", "lang", null, "en");
        Representation(xml, flora.Name);
        xml.WriteStartElement("TaxonNames");
        foreach (var taxon in flora.Taxa)
        {
            xml.WriteStartElement("TaxonName");
            Ids(xml, taxa[taxon.Id], taxon.Id);
            Representation(xml, taxon.Authorship.Length > 0 ? $"{taxon.Name} {taxon.Authorship}" : taxon.Name);
            if (taxon.Rank.Length > 0)
                Element(xml, "Rank", ("literal", taxon.Rank));
            xml.WriteElementString("CanonicalName", Clean(taxon.Name));
            xml.WriteEndElement();
        }
        xml.WriteEndElement();
        Concepts(xml);
        Characters(xml, table, characters);
        xml.WriteStartElement("CodedDescriptions");
        var at = 0;
        var names = flora.Taxa.ToDictionary(t => t.Id, t => t.Name, StringComparer.Ordinal);
        foreach (var description in table.Descriptions.Where(d => taxa.ContainsKey(d.Taxon)))
        {
            xml.WriteStartElement("CodedDescription");
            xml.WriteAttributeString("id", $"d{++at}");
            Representation(xml, names[description.Taxon]);
            xml.WriteStartElement("Scope");
            Element(xml, "TaxonName", ("ref", taxa[description.Taxon]));
            xml.WriteEndElement();
            xml.WriteStartElement("SummaryData");
            foreach (var it in description.Characters)
            {
                if (table.Find(it.Character) is { } character)
                    Summary(xml, character, characters[it.Character], it);
            }
            xml.WriteEndElement();
            xml.WriteEndElement();
        }
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteEndDocument();
    }

    private static void Concepts(XmlWriter xml)
    {
        xml.WriteStartElement("DescriptiveConcepts");
        xml.WriteStartElement("DescriptiveConcept");
        xml.WriteAttributeString("id", "dc1");
        Representation(xml, "Frequency");
        xml.WriteStartElement("Modifiers");
        foreach (var (id, label, share) in Frequencies)
        {
            xml.WriteStartElement("Modifier");
            xml.WriteAttributeString("id", id);
            Representation(xml, label);
            xml.WriteElementString("ModifierClass", "Frequency");
            var figure = share.ToString("0.##", CultureInfo.InvariantCulture);
            Element(xml, "ProportionRange", ("lowerestimate", figure), ("upperestimate", figure));
            xml.WriteEndElement();
        }
        xml.WriteStartElement("Modifier");
        xml.WriteAttributeString("id", MisreadModifier);
        Representation(xml, "by misinterpretation");
        xml.WriteElementString("ModifierClass", "TreatAsMisinterpretation");
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteEndElement();
        xml.WriteEndElement();
    }

    private static void Characters(XmlWriter xml, CharacterTable table, Dictionary<string, string> numbers)
    {
        xml.WriteStartElement("Characters");
        foreach (var character in table.Characters)
        {
            var number = numbers[character.Id];
            xml.WriteStartElement(character.IsQuantity ? "QuantitativeCharacter" : "CategoricalCharacter");
            Ids(xml, number, character.Id);
            Representation(xml, character.Name, character.Definition);
            if (character.IsQuantity)
            {
                var unit = character.Kind switch
                {
                    CharacterKind.Length => "mm",
                    CharacterKind.Angle => "°",
                    CharacterKind.Count => "",
                    _ => character.Unit,
                };
                xml.WriteStartElement("MeasurementUnit");
                xml.WriteStartElement("Label");
                xml.WriteAttributeString("role", "Abbrev");
                xml.WriteString(Clean(unit));
                xml.WriteEndElement();
                xml.WriteEndElement();
                xml.WriteElementString("MeasurementScale", character.Kind == CharacterKind.Count ? "Absolute" : "Ratio");
            }
            else
            {
                xml.WriteElementString("MeasurementScale", character.Kind == CharacterKind.Ordered ? "Ordinal" : "Nominal");
                xml.WriteStartElement("States");
                for (var s = 0; s < character.States.Count; s++)
                {
                    xml.WriteStartElement("StateDefinition");
                    Ids(xml, $"{number}s{s + 1}", character.States[s].Id);
                    Representation(xml, character.States[s].Name, character.States[s].Definition);
                    xml.WriteEndElement();
                }
                xml.WriteEndElement();
            }
            xml.WriteEndElement();
        }
        xml.WriteEndElement();
    }

    private static void Summary(XmlWriter xml, Character character, string number, CharacterDescription it)
    {
        xml.WriteStartElement(character.IsQuantity ? "Quantitative" : "Categorical");
        xml.WriteAttributeString("ref", number);
        if (!it.Applies)
            Element(xml, "Status", ("code", "NotApplicable"));
        else if (it.Range is { } range)
        {
            void Measure(string type, double? value)
            {
                if (value is { } v)
                    Element(xml, "Measure", ("type", type), ("value", v.ToString("R", CultureInfo.InvariantCulture)));
            }
            Measure(
                "Min",
                range.LowExtreme
                    ?? (
                        range.Form == RangeForm.UpTo ? null
                        : range.Form == RangeForm.MoreThan ? range.Low
                        : null
                    )
            );
            if (range.Form != RangeForm.UpTo)
                Measure("UMethLower", range.Low);
            if (range.Form != RangeForm.MoreThan)
                Measure("UMethUpper", range.High);
            Measure("Max", range.HighExtreme ?? (range.Form == RangeForm.UpTo ? range.High : null));
            if (range.Text.Length > 0)
                Note(xml, range.Text);
        }
        else
        {
            foreach (
                var (state, modifier) in it
                    .States.Select(s => (s.State, Frequencies.MinBy(f => Math.Abs(f.Share - s.Share)).Id))
                    .Concat((it.Misread ?? []).Select(m => (m, MisreadModifier)))
            )
            {
                if (character.IndexOf(state) is not (>= 0 and var s))
                    continue;
                xml.WriteStartElement("State");
                xml.WriteAttributeString("ref", $"{number}s{s + 1}");
                Element(xml, "Modifier", ("ref", modifier));
                xml.WriteEndElement();
            }
        }
        xml.WriteEndElement();
    }

    private static void Note(XmlWriter xml, string text)
    {
        xml.WriteStartElement("Note");
        xml.WriteString(Clean(text));
        xml.WriteEndElement();
    }

    private static void Ids(XmlWriter xml, string id, string own)
    {
        xml.WriteAttributeString("id", id);
        xml.WriteAttributeString("debugid", Clean(own));
    }

    private static void Representation(XmlWriter xml, string label, string detail = "")
    {
        xml.WriteStartElement("Representation");
        xml.WriteElementString("Label", Clean(label));
        if (detail.Length > 0)
            xml.WriteElementString("Detail", Clean(detail));
        xml.WriteEndElement();
    }

    // What XML can't hold, control characters and halves of a pair, is left out.
    private static string Clean(string text)
    {
        var kept = new System.Text.StringBuilder(text.Length);
        for (var i = 0; i < text.Length; i++)
        {
            if (XmlConvert.IsXmlChar(text[i]))
                kept.Append(text[i]);
            else if (i + 1 < text.Length && XmlConvert.IsXmlSurrogatePair(text[i + 1], text[i]))
                kept.Append(text[i]).Append(text[++i]);
        }
        return kept.ToString();
    }

    private static void Element(XmlWriter xml, string name, params ReadOnlySpan<(string Name, string Value)> attributes)
    {
        xml.WriteStartElement(name);
        foreach (var (attribute, value) in attributes)
            xml.WriteAttributeString(attribute, Clean(value));
        xml.WriteEndElement();
    }
}
