using System.Net;

namespace Garten.Formats.Print;

/// <summary>Pages for paper: HTML that needs nothing else, with everything that people wrote as text.</summary>
internal static class PrintedPage
{
    /// <summary>A page with its title, its style and its body.</summary>
    public static string Of(string title, string style, string body) =>
        "<!doctype html>\n<html lang=\"en-GB\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" "
        + "content=\"width=device-width,initial-scale=1\">"
        + $"<title>{Safe(title)}</title><style>{style}</style></head><body>\n{body}</body></html>\n";

    /// <summary>A text as it stands in a page: none of it is taken for markup.</summary>
    public static string Safe(string text) => WebUtility.HtmlEncode(text);
}
