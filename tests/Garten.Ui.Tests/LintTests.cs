using System.Diagnostics;
using System.Text.Json.Nodes;
using Garten.Testing;
using Xunit;

namespace Garten.Ui.Tests;

/// <summary>The checks of the pages' sources find what they are there for: a rule of the job in a page, a page that imports another
/// one.</summary>
public sealed class LintTests
{
    [Theory]
    [InlineData("features/plants/Odd.tsx", "export const far = (x: number) => Math.hypot(x, 1);", "core/no-rules", "Math.hypot")]
    [InlineData("plant-in-hand/sift/Odd.ts", "export const doubt = (p: number) => p >= 0.25;", "core/no-rules", "threshold")]
    [InlineData("shared/botany/Odd.ts", "export const parts = ['leaf', 'twig', 'fruit'];", "core/no-rules", "organs")]
    [InlineData("app/Odd.ts", "export const months = ['Jan', 'Feb', 'Mar'];", "core/no-rules", "months")]
    [InlineData(
        "features/today/Odd.ts",
        "export const tools = { lens: 'hand lens', knife: 'knife', ruler: 'ruler' };",
        "core/no-rules",
        "tools"
    )]
    [InlineData("features/today/Odd.ts", "export { PlantPage } from '../plants/PlantPage';", "rooms/no-arrow-up", "features/plants")]
    [InlineData("offline/Odd.ts", "export { Page } from '../shared/ui/Page';", "rooms/no-arrow-up", "shared")]
    public async Task ARuleOrAnArrowInThePagesIsFound(string file, string code, string rule, string says)
    {
        var found = await LintAsync(file, code);
        Assert.Contains(found, m => (string)m["ruleId"]! == rule && ((string)m["message"]!).Contains(says, StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("features/plants/Even.ts", "export const x = (a: number[]) => Math.max(1, ...a) * Math.sin(1);")]
    [InlineData("features/plants/Even.ts", "export const marks = { lens: 'M0 0', knife: 'M1 1', ruler: 'M2 2' };")]
    [InlineData("features/plants/Even.ts", "export { spoken } from '../../shared/calendar/day';")]
    [InlineData("plates/Even.ts", "export const parts = ['leaf', 'twig', 'fruit'].filter(() => Math.hypot(1, 2) > 0.5);")]
    public async Task LayoutAndDrawingsAreLeftAlone(string file, string code) => Assert.Empty(await LintAsync(file, code));

    // All snippets go through one ESLint: starting it takes longer than checking them.
    private const string Script = """
        import { ESLint } from "eslint";
        let text = "";
        for await (const piece of process.stdin) text += piece;
        const eslint = new ESLint();
        const found = [];
        for (const { file, code } of JSON.parse(text))
          found.push((await eslint.lintText(code, { filePath: `src/${file}` }))[0]?.messages ?? []);
        process.stdout.write(JSON.stringify(found));
        """;

    private static readonly Lazy<Task<Dictionary<(string File, string Code), IReadOnlyList<JsonNode>>>> Linted = new(LintAllAsync);

    private static async Task<IReadOnlyList<JsonNode>> LintAsync(string file, string code) => (await Linted.Value)[(file, code)];

    private static async Task<Dictionary<(string File, string Code), IReadOnlyList<JsonNode>>> LintAllAsync()
    {
        var snippets = typeof(LintTests)
            .GetMethods()
            .SelectMany(m => m.GetCustomAttributes(typeof(InlineDataAttribute), false).Cast<InlineDataAttribute>())
            .Select(d => (File: (string)d.Data[0]!, Code: (string)d.Data[1]!))
            .Distinct()
            .ToList();
        var start = new ProcessStartInfo("node")
        {
            WorkingDirectory = Path.Combine(Repository.Root, "web"),
            UseShellExecute = false,
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
        };
        foreach (var argument in new[] { "--input-type=module", "--eval", Script })
            start.ArgumentList.Add(argument);
        using var eslint = Process.Start(start)!;
        var asked = new JsonArray([.. snippets.Select(s => (JsonNode?)new JsonObject { ["file"] = s.File, ["code"] = s.Code })]);
        await eslint.StandardInput.WriteAsync(asked.ToJsonString());
        eslint.StandardInput.Close();
        var said = JsonNode.Parse(await eslint.StandardOutput.ReadToEndAsync())!.AsArray();
        await eslint.WaitForExitAsync();
        return snippets.Zip(said).ToDictionary(s => s.First, s => (IReadOnlyList<JsonNode>)[.. s.Second!.AsArray().Select(m => m!)]);
    }
}
