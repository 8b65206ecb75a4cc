using System.Text.Json.Serialization;

namespace Garten.Core.Keys;

/// <summary>What may be done with a text.</summary>
[JsonConverter(typeof(CamelCaseWords<TextLicence>))]
public enum TextLicence
{
    /// <summary>Nothing is said of it: it stays here.</summary>
    Unsaid,

    /// <summary>Written by whoever keeps it here.</summary>
    Own,

    /// <summary>Its protection has ended.</summary>
    PublicDomain,

    /// <summary>Creative Commons Zero.</summary>
    Cc0,

    /// <summary>Creative Commons Attribution.</summary>
    CcBy,

    /// <summary>Creative Commons Attribution-ShareAlike.</summary>
    CcBySa,

    /// <summary>All rights reserved: for the use of those who have the book.</summary>
    AllRights,
}

/// <summary>Where a pasted text is from, and what may be done with it.</summary>
/// <param name="Book">The book, paper or person; may be empty.</param>
/// <param name="Page">The page or place in it; may be empty.</param>
/// <param name="Licence">Its licence.</param>
/// <param name="OnlyHere">Whether only the device that brought it sees it.</param>
public sealed record TextSource(string Book = "", string Page = "", TextLicence Licence = TextLicence.Unsaid, bool OnlyHere = false)
{
    /// <summary>Whether its licence allows that it is handed on.</summary>
    public bool MayBeExported => Licence is not (TextLicence.Unsaid or TextLicence.AllRights);

    /// <summary>Source and licence in a line.</summary>
    public string InWords =>
        string.Join(
            ", ",
            new[] { Book, Page.Length > 0 && char.IsAsciiDigit(Page[0]) ? $"p. {Page}" : Page, LicenceInWords(Licence) }.Where(t =>
                t.Length > 0
            )
        );

    /// <summary>A licence in words.</summary>
    public static string LicenceInWords(TextLicence licence) =>
        licence switch
        {
            TextLicence.Own => "own work",
            TextLicence.PublicDomain => "public domain",
            TextLicence.Cc0 => "CC0",
            TextLicence.CcBy => "CC BY",
            TextLicence.CcBySa => "CC BY-SA",
            TextLicence.AllRights => "all rights reserved",
            _ => "licence not said",
        };
}
