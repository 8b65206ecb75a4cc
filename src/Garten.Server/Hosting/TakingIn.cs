using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Garten.Core.Contracts;
using Garten.Formats;
using Garten.Server.Commands;

namespace Garten.Server.Hosting;

/// <summary>
/// Has the server that runs on this machine take in what waited on a device, out of its file: <c>./garten take-in FILE</c>. A change counts
/// once, however often its file is taken in, and whether or not the device sends it as well.
/// </summary>
internal static class TakingIn
{
    /// <summary>What the program is called with to do so, before the file and the server's address.</summary>
    public const string Word = "take-in";

    // As many as a device sends at a time.
    private const int Batch = 100;

    /// <summary>The pass-phrase of a locked file stands here: not among the arguments, which others on the machine can read.</summary>
    public const string PhraseVariable = "GARTEN_PHRASE";

    /// <summary>Takes a file in and says what became of it. 0: all of it is there now; 1: some of it was refused, and why is said; 2: it
    /// couldn't be read, or the server couldn't be asked to the end: it can be taken in again.</summary>
    public static async Task<int> RunAsync(string file, HttpClient server, string phrase, TextWriter output, CancellationToken stop)
    {
        HandOverFile handed;
        try
        {
            if (new FileInfo(file).Length > HandOverFile.LargestText)
                throw new HandOverException("This file is far too large for what waits on a device.");
            handed = HandOverFile.Read(await File.ReadAllTextAsync(file, new UTF8Encoding(false, true), stop), phrase);
        }
        catch (Exception wrong) when (wrong is HandOverException or IOException or UnauthorizedAccessException or DecoderFallbackException)
        {
            await output.WriteLineAsync(wrong is DecoderFallbackException ? "This isn’t a text in UTF-8." : wrong.Message);
            return 2;
        }
        var results = new List<CommandResult>();
        foreach (var part in handed.Commands.Chunk(Batch))
        {
            try
            {
                results.AddRange(await SendAsync(server, handed.Device, part, stop));
            }
            catch (Exception away) when (away is HttpRequestException or JsonException || IsTooLate(away, stop))
            {
                await SayAsync(output, handed, results);
                await output.WriteLineAsync(
                    $"Then the server couldn’t be asked: {away.Message} Take the file in again: nothing counts twice."
                );
                return 2;
            }
        }
        await SayAsync(output, handed, results);
        return results.Exists(r => r.Problem is not null) ? 1 : 0;
    }

    // What HttpClient says when no answer comes in its time.
    private static bool IsTooLate(Exception away, CancellationToken stop) => away is TaskCanceledException && !stop.IsCancellationRequested;

    private static async Task<IReadOnlyList<CommandResult>> SendAsync(
        HttpClient server,
        Guid? device,
        JsonElement[] commands,
        CancellationToken stop
    )
    {
        // As they were written: what is hashed is the text.
        using var content = new StringContent(
            $$"""{"commands":[{{string.Join(',', commands.Select(c => c.GetRawText()))}}]}""",
            Encoding.UTF8,
            "application/json"
        );
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/v1/commands") { Content = content };
        if (device is { } id)
            request.Headers.Add(CommandsFeature.DeviceHeader, id.ToString());
        using var response = await server.SendAsync(request, stop);
        if (response.StatusCode == HttpStatusCode.OK)
        {
            var answer = (await response.Content.ReadFromJsonAsync(CoreJson.Default.JsonElement, stop)).GetProperty("results");
            return [.. answer.EnumerateArray().Select(r => r.Deserialize(CoreJson.Default.CommandResult)!)];
        }
        var problem =
            response.Content.Headers.ContentType?.MediaType == "application/problem+json"
                ? await response.Content.ReadFromJsonAsync(CoreJson.Default.ProblemReport, stop)
                : null;
        // A batch of one is answered by its own problem.
        return commands is [var only] && problem is not null && (int)response.StatusCode < (int)HttpStatusCode.InternalServerError
            ? [new CommandResult(only.GetProperty("id").GetGuid(), CommandStatus.Refused, problem)]
            : throw new HttpRequestException(
                problem is null ? $"It answers {(int)response.StatusCode}." : $"{problem.Title} {problem.Detail}"
            );
    }

    private static async Task SayAsync(TextWriter output, HandOverFile handed, List<CommandResult> results)
    {
        var applied = results.Count(r => r.Status == CommandStatus.Applied);
        var already = results.Count(r => r.Status == CommandStatus.Already);
        var refused = results.Count(r => r.Problem is not null);
        await output.WriteLineAsync(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{handed.Commands.Count} changes in the file: {applied} taken in, {already} were here already, {refused} refused."
            )
        );
        foreach (var (result, at) in results.Select((r, i) => (r, i)).Where(x => x.r.Problem is not null))
            await output.WriteLineAsync(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"  {at + 1} ({handed.Commands[at].GetProperty("kind").GetString()}): {result.Problem!.Title} {result.Problem.Detail}"
                )
            );
    }
}
