using System.Text.Json;
using System.Text.RegularExpressions;
using Halterion.Core.Checks;
using Halterion.Core.Demands;
using Halterion.Core.Leading;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>
/// What is said on screens and aloud is made for people: no field names, values, marks or file paths, no "1 moves". Walked over the
/// demo's classes: checks, fixes, calls and scenes; and over every rule.
/// </summary>
public sealed partial class VoiceTests
{
    /// <summary>Marks of sources, paths, values of fields, empty brackets, dangling signs, and plurals of one.</summary>
    [GeneratedRegex(
        @"\[[MCP]\]|docs/|\.md\b|\bnull\b|\btrue\b|\bfalse\b|\(\)|“”|\{|\}|  | ,| \.(\s|$)|[a-z][A-Z][a-z]|"
        + @"\b1 (moves|rounds|stations|people|reps|options|things|places|items|lanes|machines|landings|sets|classes|minutes|seconds)\b|"
        + @"\d %|Right would be|goes round|Not so at|does not fit its window",
        RegexOptions.CultureInvariant)]
    private static partial Regex NeverShown();

    private static void Fit(string where, string? words)
    {
        if (!string.IsNullOrEmpty(words))
        {
            Assert.False(NeverShown().IsMatch(words), $"{where}: “{words}” has “{NeverShown().Match(words).Value}”.");
        }
    }

    [Fact]
    public void Every_rule_speaks_in_sentences_for_people()
    {
        foreach (var rule in Rules.All)
        {
            Fit(rule.Code, rule.Says);
            Fit(rule.Code, rule.Why);
            Fit(rule.Code, rule.Source);
            Fit(rule.Code, rule.Others);
            Fit(rule.Code, rule.Several);
            // A sentence ends once; a label and a group heading do not.
            Assert.EndsWith(".", rule.Why, StringComparison.Ordinal);
            Assert.False(rule.Says.EndsWith('.') || rule.Several?.EndsWith('.') == true, rule.Code);
        }

        Assert.Equal(Rules.All.Length, Rules.All.Select(r => r.Says).Distinct().Count());
    }

    [Theory]
    [InlineData("six-around-the-loft")]
    [InlineData("full-moon-circuit")]
    [InlineData("slow-and-strong")]
    [InlineData("every-seventy-five-seconds")]
    public void What_the_demo_says_is_said_to_people(string name)
    {
        var file = File.ReadAllText(Path.Combine(Path.GetDirectoryName(Here())!, $"../../demo/{name}.halterion.json"));
        using var json = JsonDocument.Parse(file);
        var evaluator = new Evaluator(Library, new Preferences());
        var evaluation = evaluator.Evaluate(file).Evaluation!;
        foreach (var finding in evaluation.Findings)
        {
            Fit(finding.Code, finding.What);
            Fit(finding.Code, finding.Behind);
            Assert.All(finding.Repairs, repair => Fit(finding.Code, repair.Title));
        }

        foreach (var offer in Mender.Of(json.RootElement, evaluator)!.Offers(() => false, TestContext.Current.CancellationToken).Offers)
        {
            Fit(offer.Finding, offer.Verdict);
        }

        var plan = Plan(file);
        var script = LeadScript.Of(plan, Timeline(file), new Preferences());
        Assert.NotEmpty(script.Calls);
        Assert.All(script.Calls, call => Fit($"call at {call.At}", call.Text));
        foreach (var scene in script.Scenes)
        {
            Fit("headline", scene.Headline);
            Fit("target", scene.Target);
            Fit("side", scene.SideWords);
        }
    }

    /// <summary>The table of care speaks of what is avoided, after “no”, in words an instructor may say.</summary>
    [Fact]
    public void Care_is_told_without_numbers_of_the_model()
    {
        foreach (var rule in LimitTable.Rules)
        {
            Fit($"{rule.Limit}", rule.What);
            Assert.DoesNotContain(" over 0", rule.What, StringComparison.Ordinal);
        }
    }

    private static string Here([System.Runtime.CompilerServices.CallerFilePath] string path = "") => path;
}
