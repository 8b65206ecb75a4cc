using Microsoft.AspNetCore.Http.Features;

namespace Garten.Server.Hosting;

/// <summary>Files that come in a form.</summary>
internal static class FormFiles
{
    private const int LongestField = 1 << 10;

    /// <summary>The content of the one file “file” of a form; what is answered instead where it can't be read.</summary>
    public static async Task<(byte[]? Content, IResult? Refusal)> OneAsync(HttpRequest request, long largest, CancellationToken stop)
    {
        const string expected = "Send multipart/form-data with the file “file”.";
        var (form, refusal) = await ReadAsync(request, largest, LongestField, expected, stop);
        if (form is null)
            return (null, refusal);
        if (form.Files["file"] is not { } file)
            return (null, Problems.Result(400, "request.invalid", "The file is missing.", expected, "file"));
        using var kept = new MemoryStream();
        await file.CopyToAsync(kept, stop);
        return (kept.ToArray(), null);
    }

    /// <summary>Reads the form of a request within its limits; what is answered instead where it can't be.</summary>
    /// <param name="request">The request.</param>
    /// <param name="largest">Most bytes of the whole form.</param>
    /// <param name="longestField">Most bytes of what is typed into a field.</param>
    /// <param name="expected">What is to be sent, as a sentence.</param>
    /// <param name="stop">Ends the reading.</param>
    public static async Task<(IFormCollection? Form, IResult? Refusal)> ReadAsync(
        HttpRequest request,
        long largest,
        int longestField,
        string expected,
        CancellationToken stop
    )
    {
        if (!request.HasFormContentType)
            return (null, Problems.Result(415, "body.type", "The body isn't a form with files.", expected));
        if (request.ContentLength > largest)
        {
            await RequestGuard.RefuseAsync(request.HttpContext, largest);
            return (null, Results.Empty);
        }
        if (request.HttpContext.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = largest;
        try
        {
            var form = await request.ReadFormAsync(
                new FormOptions
                {
                    MultipartBodyLengthLimit = largest,
                    ValueLengthLimit = longestField,
                    BufferBodyLengthLimit = largest,
                    MemoryBufferThreshold = 256 << 10,
                },
                stop
            );
            return (form, null);
        }
        catch (Exception error)
            when (error
                    is InvalidDataException
                        or IOException
                        or ArgumentException
                        or FormatException
                        or NotSupportedException
                        or InvalidOperationException
            )
        {
            return (
                null,
                error.Message.Contains("limit", StringComparison.Ordinal)
                    ? Problems.Result(413, "body.too-large", "This is too large.", $"Send at most {largest >> 20} MiB at a time.")
                    : Problems.Result(
                        400,
                        "request.invalid",
                        "The form can't be read.",
                        "It isn't whole, or not a form with files: send multipart/form-data."
                    )
            );
        }
    }
}
