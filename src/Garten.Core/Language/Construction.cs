namespace Garten.Core.Language;

/// <summary>The constructions that a clause can be read by: the closed list of docs/language.md. A clause uses several at once.</summary>
[Flags]
public enum Construction
{
    /// <summary>None.</summary>
    None = 0,

    /// <summary>A subject and what it is like: "leaves opposite, ovate".</summary>
    Predicates = 1 << 0,

    /// <summary>Numbers, measures, ratios: "stamens 10", "4–9 × 2–5 cm", "side-veins 9–12 pairs".</summary>
    Numbers = 1 << 1,

    /// <summary>With, without, of: "with two glands".</summary>
    Having = 1 << 2,

    /// <summary>On a stalk: "on hairy stalks 2 cm long".</summary>
    OnStalk = 1 << 3,

    /// <summary>What kind of plant it is: "erect shrub to 2 m".</summary>
    LifeForm = 1 << 4,

    /// <summary>What stands before a noun: "milky sap".</summary>
    Premodified = 1 << 5,

    /// <summary>A face or an end: "beneath grey-felted", "rounded at the base".</summary>
    Region = 1 << 6,

    /// <summary>Words that follow each other without a comma: "dull dark green", "purple-spotted".</summary>
    Bundle = 1 << 7,

    /// <summary>Denial: "not decurrent", "without stipules", "wingless".</summary>
    Denial = 1 << 8,

    /// <summary>How often, or nearly: "usually 5", "almost sessile".</summary>
    Frequency = 1 << 9,

    /// <summary>Alternatives and transitions: "white or pink", "elliptic to obovate".</summary>
    List = 1 << 10,

    /// <summary>A part of a part: "the teeth blunt", "base of the blade".</summary>
    PartOfPart = 1 << 11,

    /// <summary>Beside another part: "longer than the sepals", "twice as long as the tube".</summary>
    Comparison = 1 << 12,

    /// <summary>A subject that is left out: "the lower 1-veined", "the upper ones sessile".</summary>
    Elliptic = 1 << 13,

    /// <summary>How flowers stand: "in a terminal raceme".</summary>
    Inflorescence = 1 << 14,

    /// <summary>Of what kind a fruit is: "a blue-black berry".</summary>
    FruitKind = 1 << 15,

    /// <summary>So many together: "in whorls of 6–8", "in 4–8 pairs".</summary>
    Together = 1 << 16,

    /// <summary>A verb with its complement: "fringed with white hairs", "opening by 6 teeth".</summary>
    Frame = 1 << 17,

    /// <summary>Age: "silky when young".</summary>
    Age = 1 << 18,
}
