using System.Collections.Concurrent;
using System.Globalization;
using System.IO.Compression;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Garten.Benchmarks;

/// <summary>What became of a run.</summary>
/// <param name="Requests">How many requests were answered.</param>
/// <param name="Uploads">How many of them brought tables, documents or keys.</param>
/// <param name="Statuses">How many answers there were of each status.</param>
/// <param name="SlowestSeconds">The longest that an answer took.</param>
/// <param name="Slowest">What was asked then.</param>
/// <param name="Faults">Answers that must not be: a failure of the server, none at all, one cut short, one that isn't what it says.</param>
public sealed record FuzzReport(
    int Requests,
    int Uploads,
    IReadOnlyDictionary<int, int> Statuses,
    double SlowestSeconds,
    string Slowest,
    IReadOnlyList<string> Faults
);

/// <summary>
/// Sends a server what no sound client sends: requests made of its own description of the API, with values at the ends of their ranges, of
/// another kind, too long, missing or bent, and tables and documents cut, bent and blown up. Only for a server on loopback with made-up
/// data.
/// </summary>
/// <param name="client">Reaches the server.</param>
/// <param name="seed">The same seed sends the same.</param>
/// <param name="files">Tables, documents and keys that are bent: name and content.</param>
public sealed class Fuzz(HttpClient client, int seed, IReadOnlyList<(string Name, byte[] Content)> files)
{
    private const int AtOnce = 4;
    private const int MostFaults = 50;

    // How often a value is bent, of a hundred.
    private const int Bent = 12;

    private static readonly string[] OddTexts =
    [
        "",
        " ",
        "\0",
        "a\0b",
        "..",
        "../../etc/passwd",
        "%00",
        "%",
        "'",
        "\"; drop table command; --",
        "<script>alert(1)</script>",
        "{}",
        "null",
        "NaN",
        "Infinity",
        "-0",
        "1e999",
        "\ud83c\udf3f",
        "é\u0301",
        "\u202e",
        "\uffff",
        "=1+1",
        "0001-01-01",
        "9999-12-31",
        "2026-02-30",
        "2026-13-01",
        "00000000-0000-0000-0000-000000000000",
        "*",
        "?",
        "&&",
        "\r\nX: y",
        "一",
        new('x', 300),
        new('9', 400),
        new('(', 5000),
    ];

    private static readonly string[] OddNumbers =
    [
        "0",
        "-1",
        "1",
        "0.5",
        "1e308",
        "-1e308",
        "1e-320",
        "5e-324",
        "1e999",
        "2147483647",
        "2147483648",
        "-2147483648",
        "9223372036854775808",
        "90",
        "180.0001",
        "366",
        "NaN",
        "\"1\"",
        "null",
        "true",
        "[]",
        "{}",
    ];

    private readonly Random _random = new(seed);
    private readonly List<string> _words = ["torvane", "2026-05-20", "2026-01-15", "sure", "seen", "leaf", "flower"];
    private readonly ConcurrentDictionary<int, int> _statuses = new();
    private readonly ConcurrentQueue<string> _faults = new();
    private readonly Lock _slow = new();
    private JsonNode _description = new JsonObject();
    private JsonObject _schemas = [];
    private List<(string Method, string Path, JsonNode Operation)> _operations = [];
    private double _slowest;
    private string _slowestOf = "";
    private int _requests;
    private int _uploads;

    /// <summary>Sends so many requests, or as many as go in a time.</summary>
    /// <param name="requests">How many at most.</param>
    /// <param name="uploads">How many of them bring files.</param>
    /// <param name="time">How long at most.</param>
    /// <param name="stop">Ends it.</param>
    public async Task<FuzzReport> RunAsync(int requests, int uploads, TimeSpan time, CancellationToken stop)
    {
        _description = JsonNode.Parse(await client.GetStringAsync(new Uri("/api/v1/openapi.json", UriKind.Relative), stop))!;
        _schemas = _description["components"]!["schemas"]!.AsObject();
        _operations =
        [
            .. _description["paths"]!
                .AsObject()
                .SelectMany(p => p.Value!.AsObject().Select(o => (o.Key.ToUpperInvariant(), p.Key, o.Value!))),
        ];
        await LearnAsync(stop);
        var every = Math.Max(1, requests / Math.Max(1, uploads));
        var began = TimeProvider.System.GetTimestamp();
        var sent = 0;
        while (sent < requests && TimeProvider.System.GetElapsedTime(began) < time)
        {
            // Made one after another, so that the seed decides; sent a few at once.
            var batch = new List<(HttpRequestMessage Message, string What)>();
            for (var i = 0; i < AtOnce && sent < requests; i++, sent++)
            {
                var isUpload = sent % every == 0 && _uploads < uploads;
                if (isUpload)
                    _uploads++;
                if ((isUpload ? Upload() : Request()) is { } made)
                    batch.Add(made);
            }
            await Task.WhenAll(batch.Select(b => SendAsync(b.Message, b.What, stop)));
        }
        // Afterwards it is well, and has contradicted nothing.
        foreach (var address in new[] { "health", "records", "plants", "floras", "keys" })
            await SendAsync(new HttpRequestMessage(HttpMethod.Get, "/api/v1/" + address), "afterwards " + address, stop, mustBeWell: true);
        var contradictions = await client.GetStringAsync(new Uri("/api/v1/contradictions", UriKind.Relative), stop);
        if (contradictions != "[]")
            _faults.Enqueue("contradictions: " + contradictions);
        return new FuzzReport(_requests, _uploads, _statuses.OrderBy(s => s.Key).ToDictionary(), _slowest, _slowestOf, [.. _faults]);
    }

    // What the server has: ids, names and states, so that much of what is sent points at something.
    private async Task LearnAsync(CancellationToken stop)
    {
        foreach (
            var address in new[]
            {
                "places",
                "people",
                "plants",
                "populations",
                "records?size=50",
                "keys",
                "floras",
                "floras/torvane/characters",
                "floras/torvane/taxa",
            }
        )
        {
            var response = await client.GetAsync(new Uri("/api/v1/" + address, UriKind.Relative), stop);
            if (!response.IsSuccessStatusCode)
                continue;
            var texts = new List<string>();
            Gather(JsonNode.Parse(await response.Content.ReadAsStringAsync(stop)), texts);
            _words.AddRange(texts.Distinct().Take(150));
        }
    }

    private static void Gather(JsonNode? node, List<string> texts)
    {
        if (node is JsonObject some)
            foreach (var (_, value) in some)
                Gather(value, texts);
        else if (node is JsonArray all)
            foreach (var value in all)
                Gather(value, texts);
        else if (node is JsonValue value && value.TryGetValue<string>(out var text) && text.Length is > 0 and < 100)
            texts.Add(text);
    }

    private T One<T>(IReadOnlyList<T> all) => all[_random.Next(all.Count)];

    private bool Now(int ofHundred) => _random.Next(100) < ofHundred;

    private string Word() =>
        Now(Bent) ? One(OddTexts)
        : Now(20) ? Guid.CreateVersion7().ToString()
        : One(_words);

    private (HttpRequestMessage, string)? Request()
    {
        var (method, path, operation) = One(_operations);
        var address = new StringBuilder(path);
        var query = new List<string>();
        foreach (var parameter in operation["parameters"]?.AsArray() ?? [])
        {
            var name = (string)parameter!["name"]!;
            if ((string)parameter["in"]! == "path")
                address.Replace($"{{{name}}}", Escaped(Word() is { Length: > 0 } word ? word : "x"));
            else
            {
                for (
                    var times = Now(60)
                        ? Now(5)
                            ? 3
                            : 1
                        : 0;
                    times > 0;
                    times--
                )
                    query.Add($"{name}={Escaped(Now(30) ? One(OddNumbers) : Word())}");
            }
        }
        if (query.Count > 0)
            address.Append('?').AppendJoin('&', query);
        if (!Uri.TryCreate(address.ToString(), UriKind.Relative, out var uri))
            return null;
        var message = new HttpRequestMessage(new HttpMethod(method), uri);
        var what = $"{method} {address}";
        if (operation["requestBody"]?["content"] is JsonObject content)
        {
            if (content["application/json"]?["schema"] is { } schema)
            {
                var text = new StringBuilder();
                Write(schema, text, 0);
                message.Content = Body(text.ToString(), "application/json");
                what += " " + (text.Length > 300 ? text.ToString(0, 300) : text.ToString());
            }
            else if (content["text/plain"] is not null)
                message.Content = Body(Encoding.UTF8.GetString(BentFile(One(files).Content)), "text/plain");
            else
                return Upload();
        }
        return (message, what);
    }

    private static string Escaped(string text)
    {
        try
        {
            return Uri.EscapeDataString(text);
        }
        catch (UriFormatException)
        {
            return "x";
        }
    }

    private ByteArrayContent Body(string text, string type)
    {
        var bytes = Encoding.UTF8.GetBytes(text);
        if (Now(4))
            bytes = bytes[.._random.Next(bytes.Length + 1)];
        if (Now(3) && bytes.Length > 0)
            bytes[_random.Next(bytes.Length)] = (byte)_random.Next(256);
        var content = new ByteArrayContent(bytes);
        content.Headers.ContentType = MediaTypeHeaderValue.TryParse(
            Now(3)
                ? One<string>([
                    "text/html",
                    "application/json; charset=xx",
                    "application/json; charset=utf-16",
                    "multipart/form-data",
                    "application/xml",
                ])
                : type,
            out var parsed
        )
            ? parsed
            : null;
        return content;
    }

    // A value by its description, now and then another one.
    private void Write(JsonNode? schema, StringBuilder text, int depth)
    {
        if (schema is null || depth > 12 || Now(1))
        {
            text.Append(
                One<string>([
                    "null",
                    "{}",
                    "[]",
                    "\"x\"",
                    "[[[[[[[[[[]]]]]]]]]]",
                    One(OddNumbers).Replace("NaN", "0", StringComparison.Ordinal),
                ])
            );
            return;
        }
        if (schema["$ref"] is { } reference)
            Write(_schemas[((string)reference!).Split('/')[^1]], text, depth);
        else if ((schema["oneOf"] ?? schema["anyOf"]) is JsonArray { Count: > 0 } choices)
            Write(One<JsonNode?>([.. choices]), text, depth + 1);
        else if (schema["enum"] is JsonArray { Count: > 0 } values)
            text.Append(Now(Bent) ? JsonSerializer.Serialize(Word()) : One<JsonNode?>([.. values])?.ToJsonString() ?? "null");
        else
        {
            var kinds = schema["type"] is JsonArray several
                ? several.Select(t => (string)t!).ToList()
                : [(string?)schema["type"] ?? "object"];
            WriteKind(One(kinds), schema, text, depth);
        }
    }

    private void WriteKind(string kind, JsonNode schema, StringBuilder text, int depth)
    {
        switch (kind)
        {
            case "object":
                text.Append('{');
                var first = true;
                void Member(string name, JsonNode? of)
                {
                    if (!first)
                        text.Append(',');
                    first = false;
                    text.Append(JsonSerializer.Serialize(name)).Append(':');
                    Write(of, text, depth + 1);
                }
                foreach (var (name, value) in schema["properties"]?.AsObject() ?? [])
                {
                    if (!Now(Bent / 2))
                        Member(name, value);
                }
                if (schema["additionalProperties"] is JsonObject more)
                    for (var n = _random.Next(4); n > 0; n--)
                        Member(Word(), more);
                text.Append('}');
                break;
            case "array":
                text.Append('[');
                for (int i = 0, n = Now(2) ? 300 : _random.Next(depth > 6 ? 2 : 4); i < n; i++)
                {
                    if (i > 0)
                        text.Append(',');
                    Write(schema["items"], text, depth + (n > 4 ? 6 : 1));
                }
                text.Append(']');
                break;
            case "integer" or "number":
                text.Append(
                    Now(2 * Bent)
                        ? One(OddNumbers).Replace("NaN", "0", StringComparison.Ordinal)
                        : _random.Next(1, 400).ToString(CultureInfo.InvariantCulture)
                );
                break;
            case "boolean":
                text.Append(
                    Now(Bent) ? "\"yes\""
                    : Now(50) ? "true"
                    : "false"
                );
                break;
            case "string":
                text.Append(
                    (string?)schema["const"] is { } constant && !Now(2) ? JsonSerializer.Serialize(constant)
                    : Now(1) ? "\"\\ud800\""
                    : JsonSerializer.Serialize(Word())
                );
                break;
            default:
                text.Append("null");
                break;
        }
    }

    private byte[] BentFile(byte[] whole)
    {
        var bytes = _random.Next(3) == 0 ? whole[.._random.Next(whole.Length + 1)] : [.. whole];
        var marks = ",;\t\"'\n\r<>&=-–()/0159 \0ÿ"u8.ToArray();
        for (var n = _random.Next(0, 8); n > 0 && bytes.Length > 0; n--)
        {
            var at = _random.Next(bytes.Length);
            bytes[at] = Now(50) ? One(marks) : (byte)_random.Next(256);
        }
        // A stretch that comes again and again.
        if (Now(6) && bytes.Length > 10)
        {
            var from = _random.Next(bytes.Length - 5);
            var piece = bytes[from..Math.Min(bytes.Length, from + _random.Next(1, 400))];
            bytes = [.. bytes[..from], .. Enumerable.Repeat(piece, _random.Next(2, 2000)).SelectMany(p => p), .. bytes[from..]];
        }
        return bytes;
    }

    private (HttpRequestMessage, string)? Upload()
    {
        var form = new MultipartFormDataContent();
        var says = new StringBuilder("upload");
        for (var n = Now(20) ? 2 : 1; n > 0; n--)
        {
            var (name, whole) = One(files);
            var bytes = Now(10) && name.EndsWith(".xlsx", StringComparison.Ordinal) ? Repacked(whole) : BentFile(whole);
            var field = Now(10)
                ? Word() is { Length: > 0 } word
                    ? word
                    : "matrix"
                : name.Contains("taxa", StringComparison.Ordinal)
                    ? "taxa"
                    : name.EndsWith(".xml", StringComparison.Ordinal)
                        ? "sdd"
                        : "matrix";
            form.Add(
                new ByteArrayContent(bytes),
                $"\"{Escaped(field)}\"",
                $"\"{Escaped(Now(10) ? Word() is { Length: > 0 } other ? other : "x" : name)}\""
            );
            says.Append(CultureInfo.InvariantCulture, $" {field}={name} ({bytes.Length} bytes)");
        }
        if (Now(30))
            form.Add(new StringContent(Now(50) ? "Fuzzed isle" : Word()), "name");
        foreach (var field in new[] { "columns", "dash", "grid" })
            if (Now(15))
                form.Add(new StringContent(Now(50) ? "{\"a\":" + One(OddNumbers) + "}" : Word()), field);
        var address = Now(15) ? "/api/v1/floras" : "/api/v1/floras/check";
        return (new HttpRequestMessage(HttpMethod.Post, new Uri(address, UriKind.Relative)) { Content = form }, $"POST {address} {says}");
    }

    // A workbook with one of its parts bent: the archive itself is sound.
    private byte[] Repacked(byte[] whole)
    {
        using var packed = new MemoryStream();
        using (var from = new ZipArchive(new MemoryStream(whole), ZipArchiveMode.Read))
        using (var to = new ZipArchive(packed, ZipArchiveMode.Create, leaveOpen: true))
        {
            var bent = _random.Next(from.Entries.Count);
            for (var i = 0; i < from.Entries.Count; i++)
            {
                using var part = from.Entries[i].Open();
                using var read = new MemoryStream();
                part.CopyTo(read);
                using var written = to.CreateEntry(from.Entries[i].FullName).Open();
                written.Write(i == bent ? BentFile(read.ToArray()) : read.ToArray());
            }
        }
        return packed.ToArray();
    }

    private async Task SendAsync(HttpRequestMessage message, string what, CancellationToken stop, bool mustBeWell = false)
    {
        var began = TimeProvider.System.GetTimestamp();
        try
        {
            using var response = await client.SendAsync(message, stop);
            var body = await response.Content.ReadAsByteArrayAsync(stop);
            var status = (int)response.StatusCode;
            _statuses.AddOrUpdate(status, 1, (_, n) => n + 1);
            Interlocked.Increment(ref _requests);
            if (Wrong(status, response, body) is { } wrong)
                Fault($"{wrong}: {what}");
            if (mustBeWell && !response.IsSuccessStatusCode)
                Fault($"{status}: {what}");
        }
        catch (Exception error)
            when (error is HttpRequestException or IOException or JsonException or TaskCanceledException && !stop.IsCancellationRequested)
        {
            Fault($"{error.GetType().Name} {error.Message}: {what}");
        }
        finally
        {
            message.Dispose();
            var took = TimeProvider.System.GetElapsedTime(began).TotalSeconds;
            lock (_slow)
            {
                if (took > _slowest)
                    (_slowest, _slowestOf) = (took, what);
            }
        }
    }

    private static string? Wrong(int status, HttpResponseMessage response, byte[] body)
    {
        if (status == 503)
            return response.Headers.RetryAfter is null ? "503 without a time to try again" : null;
        if (status >= 500)
            return $"{status} {Encoding.UTF8.GetString(body)}";
        var type = response.Content.Headers.ContentType?.MediaType ?? "";
        // A path with a zero in it and an address of more than 8 KB are refused by the web server itself, before anything of ours is asked.
        if (status == 414)
            return null;
        if (
            status == 400
            && body.Length == 0
            && response.RequestMessage?.RequestUri?.OriginalString.Contains("%00", StringComparison.Ordinal) == true
        )
            return null;
        if (status >= 400 && type != "application/problem+json")
            return $"{status} as “{type}”";
        if (type.EndsWith("json", StringComparison.Ordinal))
            using (JsonDocument.Parse(body))
                return null;
        return null;
    }

    private void Fault(string what)
    {
        if (_faults.Count < MostFaults)
            _faults.Enqueue(what.Length > 800 ? what[..800] : what);
    }
}
