using System.Text.Json;
using System.Text.Json.Serialization;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Web.Answers;

namespace Halterion.Web.Startup;

/// <summary>Class files to be checked, for people who keep their classes in folders.</summary>
internal sealed record CheckTask(string[] Files, bool AsJson)
{
    /// <summary>What is said of one file: its findings, or the faults for which it cannot be read.</summary>
    private sealed record Checked(string File, string? Verdict, IEnumerable<Finding> Findings, IEnumerable<PlanFault> Faults)
    {
        public bool IsWell => !Faults.Any() && !Findings.Any(f => f.Waived is null && f.Severity is Severity.Stop or Severity.Fix);
    }

    /// <summary>Prints what was found.</summary>
    /// <returns>0; 1 where something must not stay so; 2 where a file cannot be read.</returns>
    public int Run(TextWriter output)
    {
        var evaluator = new Evaluator(MoveLibrary.Load(), new Preferences());
        var all = Files.Select(file => Look(file, evaluator)).ToArray();
        if (AsJson)
        {
            var options = new JsonSerializerOptions(JsonSerializerDefaults.Web) { WriteIndented = true };
            Contract.Configure(options);
            options.DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull;
            output.WriteLine(JsonSerializer.Serialize(all, options));
        }
        else
        {
            foreach (var file in all)
            {
                Print(file, output);
            }
        }

        return all.Any(f => f.Faults.Any()) ? 2 : all.All(f => f.IsWell) ? 0 : 1;
    }

    private static Checked Look(string file, Evaluator evaluator)
    {
        try
        {
            if (new FileInfo(file).Length > ClassReader.MaxBytes)
            {
                return new Checked(
                    file, null, [], [new PlanFault("", "This file is too large for a class.", $"at most {ClassReader.MaxBytes} bytes")]);
            }

            var result = evaluator.Look(File.ReadAllBytes(file));
            return new Checked(file, result.Evaluation?.Verdict, result.Evaluation?.Findings ?? [], result.Faults);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return new Checked(file, null, [], [new PlanFault("", "This file could not be opened.", "an existing file you can read")]);
        }
    }

    private static void Print(Checked of, TextWriter output)
    {
        output.WriteLine(of.Verdict is null ? of.File : $"{of.File}: {of.Verdict}");
        foreach (var fault in of.Faults)
        {
            // The place in the file beside the sentence: here it is for whoever writes files.
            output.WriteLine($"  error {(fault.Pointer.Length == 0 ? "the file" : fault.Pointer)}: {fault.Detail} "
                + $"Should be: {fault.Right}.");
        }

        foreach (var finding in of.Findings)
        {
            var severity = finding.Waived is null ? WordsOf<Severity>.Of(finding.Severity) : "accepted";
            output.WriteLine($"  {severity,-9} {finding.Code}{(finding.Pointer.Length == 0 ? "" : $" {finding.Pointer}")}: "
                + $"{finding.What}{(finding.Waived is { } reason ? $" Reason: {reason}" : "")}");
        }

        if (of.Verdict is not null && !of.Findings.Any())
        {
            output.WriteLine("  nothing to fix");
        }
    }
}
