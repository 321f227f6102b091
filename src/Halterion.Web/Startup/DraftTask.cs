using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Web.Bodies;
using Halterion.Web.Endpoints;
using Halterion.Web.Library;

namespace Halterion.Web.Startup;

/// <summary>Classes for a brief, written beside it as class files, for people who keep their classes in folders.</summary>
internal sealed record DraftTask(string BriefFile)
{
    /// <summary>Writes up to three class files and says why each is as it is. A file that is there already is left alone.</summary>
    /// <returns>0; 1 where no class keeps all that must be kept; 2 where the brief cannot be read or a file cannot be written.</returns>
    public int Run(TextWriter output)
    {
        try
        {
            if (new FileInfo(BriefFile).Length > Raw.MaxBytes)
            {
                output.WriteLine($"{BriefFile}: this file is too large for a brief.");
                return 2;
            }

            var evaluator = new Evaluator(MoveLibrary.Load(), new Preferences());
            var (request, faults) = Read(File.ReadAllBytes(BriefFile), evaluator);
            if (request is null || !faults.IsEmpty)
            {
                output.WriteLine($"{BriefFile}: this brief has faults. Nothing was written.");
                foreach (var fault in faults)
                {
                    output.WriteLine($"  error {(fault.Pointer.Length == 0 ? "the file" : fault.Pointer)}: {fault.Detail} "
                        + $"Should be: {fault.Right}.");
                }

                return 2;
            }

            var answer = DraftEndpoints.Drafted(request.ToBrief(), evaluator);
            if (answer.Drafts.IsEmpty)
            {
                output.WriteLine($"No class can keep to all of this. {answer.Reason} {answer.WayOut}");
                return 1;
            }

            var folder = Path.GetDirectoryName(Path.GetFullPath(BriefFile))!;
            foreach (var draft in answer.Drafts)
            {
                output.WriteLine($"{Written(folder, request.Title ?? "New class", draft.Plan)}: {draft.Why[0]}");
                foreach (var line in draft.Why.Skip(1))
                {
                    output.WriteLine($"  {line}");
                }
            }

            return 0;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            output.WriteLine(File.Exists(BriefFile)
                ? $"{BriefFile}: a class file could not be written beside it." : $"{BriefFile}: this file could not be opened.");
            return 2;
        }
    }

    /// <summary>A brief as it is written, with everything that is wrong with it.</summary>
    private static (DraftRequest? Request, ImmutableArray<PlanFault> Faults) Read(byte[] bytes, Evaluator evaluator)
    {
        var (root, unsound) = Soundness.Read(bytes);
        if (root is not { } element)
        {
            return (null, unsound);
        }

        var faults = new Faults { NullIsAbsent = true };
        var fields = new Fields(element, "", faults);
        var request = fields.IsObject ? DraftRequest.Read(fields, faults) : null;
        if (fields.IsObject)
        {
            fields.Close("a brief");
        }

        return (request, [.. faults.All, .. request?.FaultsFor(evaluator) ?? []]);
    }

    private static string Written(string folder, string title, JsonElement plan)
    {
        for (var number = 1; ; number++)
        {
            var file = Path.Combine(folder, ClassText.FileName($"{title} {number}"));
            try
            {
                using var stream = new FileStream(file, FileMode.CreateNew, FileAccess.Write);
                using var writer = new StreamWriter(stream);
                writer.Write(ClassText.Written(plan));
                return file;
            }
            catch (IOException) when (File.Exists(file))
            {
                // The next number is free, or the one after it.
            }
        }
    }
}
