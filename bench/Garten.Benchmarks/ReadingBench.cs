using System.Globalization;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Garten.Core.Keys;
using Garten.Testing;
using OpenQA.Selenium.Chrome;

namespace Garten.Benchmarks;

/// <summary>Reading keys in the browser's worker: a key of 500 couplets is saved at a running server, taken onto the shelf there and read
/// by the grammar; and a look typed in words.</summary>
internal sealed class ReadingBench(TextWriter to, HttpClient client)
{
    private const int Couplets = 500;
    private const int Runs = 3;

    /// <summary>Saves the key and reads it three times, each time with a core started anew.</summary>
    public async Task RunAsync(ChromeDriver driver, Uri server)
    {
        var hash = await SaveAsync();
        for (var run = 0; run < Runs; run++)
        {
            driver.Navigate().GoToUrl(new Uri(server, "/glossary"));
            to.WriteLine($"a key of {Couplets} couplets read in the browser, milliseconds: {Read(driver, hash)}");
        }
    }

    private async Task<string> SaveAsync()
    {
        var text = KeyText(Couplets);
        var command = new JsonObject
        {
            ["kind"] = "saveKeys",
            ["id"] = Guid.CreateVersion7().ToString(),
            ["text"] = text,
        };
        var batch = new JsonObject { ["commands"] = new JsonArray(command) };
        using var answer = await client.PostAsJsonAsync(new Uri("/api/v1/commands", UriKind.Relative), batch);
        if (!answer.IsSuccessStatusCode)
            throw new InvalidOperationException(await answer.Content.ReadAsStringAsync());
        var keys = await client.GetFromJsonAsync<JsonArray>(new Uri("/api/v1/keys", UriKind.Relative));
        return (string)keys!.First(k => ((string)k!["title"]!).StartsWith(Title, StringComparison.Ordinal))!["hash"]!;
    }

    private const string Title = "Key of many couplets out of a book";

    // The leads of the demo's page out of an old book, which the grammar reads statement by statement, gone through until there are enough.
    private static string KeyText(int couplets)
    {
        var page = File.ReadAllText(Path.Combine(Repository.Root, "demo", "pages", "old-book.txt"));
        var leads = KeyTextReader
            .Read(page)
            .Keys[0]
            .Couplets.Select(c => c.Leads.Select(l => string.Join("; ", l.Statements)).ToList())
            .ToList();
        var text = new StringBuilder(Title).Append("\n\n");
        for (var i = 0; i < couplets; i++)
        {
            var pair = leads[i % leads.Count];
            var next = i + 1 < couplets ? (i + 2).ToString(CultureInfo.InvariantCulture) : "Genella " + Letters(couplets);
            text.Append(CultureInfo.InvariantCulture, $"{i + 1}. {pair[0]} ... Genella {Letters(i)}\n");
            text.Append(CultureInfo.InvariantCulture, $"{i + 1}. {pair[1]} ... {next}\n");
        }
        return text.ToString();
    }

    // 0 is "aaaa", 1 "aaab": names have no digits.
    private static string Letters(int number)
    {
        const int letters = 26,
            length = 4;
        var name = new char[length];
        for (var i = length - 1; i >= 0; i--, number /= letters)
            name[i] = (char)('a' + number % letters);
        return new string(name);
    }

    private static string Read(ChromeDriver driver, string hash)
    {
        driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromMinutes(4);
        return (string)
            driver.ExecuteAsyncScript(
                """
                const done=arguments[arguments.length-1],[hash]=arguments;
                (async()=>{
                  const {dotnet}=await import(location.origin+'/_framework/dotnet.js');
                  const core=(await (await dotnet.create()).getAssemblyExports('Garten.Browser.dll')).Garten.Browser.CoreExports;
                  const bytes=async a=>new Uint8Array(await (await fetch('/api/v1/'+a)).arrayBuffer());
                  const [vocabulary,shelf]=await Promise.all([bytes('vocabulary/packed'),bytes('keys/shelf/packed?with='+hash)]);
                  const timed=run=>{const s=performance.now();run();return Math.round(performance.now()-s);};
                  const ask=(first)=>JSON.parse(core.Call('keyReading',JSON.stringify({hash,first})));
                  const vocabularyTaken=timed(()=>core.LoadVocabulary(vocabulary)), shelfFilled=timed(()=>core.FillShelf(shelf));
                  const firstTwenty=timed(()=>ask(20)), all=timed(()=>ask(0)), again=timed(()=>ask(0));
                  const look=t=>timed(()=>core.Call('readLooks',JSON.stringify({text:t})));
                  look('leaves ovate');
                  const typed=['lvs glabrous beneath, petiole 12 14 15 mm','petiole glands 2','twigs downy; buds sticky, brown','bark grey']
                    .map(look);
                  return JSON.stringify({vocabularyTaken,shelfFilled,firstTwenty,all,again,typed});
                })().then(done,e=>done('failed: '+e));
                """,
                hash
            )!;
    }
}
