using System.Reflection;
using System.Reflection.Emit;
using Halterion.Core.Plans;

namespace Halterion.Core.Tests;

/// <summary>
/// Inside Core each folder leans only on folders above it in this list; read off the compiled types, so that no way of naming slips
/// through.
/// </summary>
public class ArchitectureTests
{
    private const string Root = "Halterion.Core";

    private static readonly string[] Order =
    [
        "", "Body", "Moves", "Plans", "PlanFormat", "Timing", "Timing.Fitting", "Timing.Refitting", "Demands", "Words", "People", "Room",
            "Sessions", "Logbook", "Checks", "Planning", "Planning.Drafts", "Planning.Weeks", "Views", "Leading.Calling", "Leading",
            "Sheets",
    ];

    private static readonly Dictionary<short, OpCode> Codes = typeof(OpCodes).GetFields(BindingFlags.Public | BindingFlags.Static)
        .Select(f => (OpCode)f.GetValue(null)!).ToDictionary(c => c.Value);

    private const BindingFlags Everything =
        BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.Instance | BindingFlags.Static | BindingFlags.DeclaredOnly;

    [Fact]
    public void Folders_depend_only_on_folders_above_them()
    {
        var types = typeof(ClassPlan)
            .Assembly.GetTypes()
            .Where(t => t.Namespace?.StartsWith(Root, StringComparison.Ordinal) == true)
            .ToArray();
        Assert.All(types, t => Assert.Contains(FolderOf(t), Order));
        var uses = types.SelectMany(
            t => Used(t)
                .Where(u => u.Assembly == t.Assembly && u.Namespace?.StartsWith(Root, StringComparison.Ordinal) == true)
                .Select(u => (From: t, To: u)))
            .Distinct().ToArray();
        Assert.True(uses.Length > 500, "The reading of compiled types found next to nothing.");
        var wrong = uses.Where(
            u => Array.IndexOf(Order, FolderOf(u.To)) > Array.IndexOf(Order, FolderOf(u.From))).Select(u => $"{u.From} uses {u.To}");
        Assert.Empty(wrong);
    }

    private static string FolderOf(Type type) => type.Namespace!.Length == Root.Length ? "" : type.Namespace[(Root.Length + 1)..];

    private static IEnumerable<Type> Used(Type type)
    {
        var named = new[] { type.BaseType }.Concat(type.GetInterfaces())
            .Concat(type.GetFields(Everything).Select(f => f.FieldType))
            .Concat(type.GetMethods(Everything).SelectMany(m => m.GetParameters().Select(p => p.ParameterType).Append(m.ReturnType)))
            .Concat(type.GetConstructors(Everything).SelectMany(c => c.GetParameters().Select(p => p.ParameterType)))
            .Concat(type.GetMethods(Everything).Cast<MethodBase>().Concat(type.GetConstructors(Everything)).SelectMany(InBody));
        return named.OfType<Type>().SelectMany(Parts);
    }

    private static IEnumerable<Type> Parts(Type type) =>
        type.HasElementType ? Parts(type.GetElementType()!)
        : type.IsGenericType ? type.GetGenericArguments().SelectMany(Parts).Append(type.GetGenericTypeDefinition())
        : [type];

    /// <summary>Types that the code of a method names: of the members it uses, and of its locals.</summary>
    private static IEnumerable<Type> InBody(MethodBase method)
    {
        if (method.GetMethodBody() is not { } body || body.GetILAsByteArray() is not { } code)
        {
            return [];
        }

        var found = body.LocalVariables.Select(v => v.LocalType).ToList();
        var ofType = method.DeclaringType!.IsGenericType ? method.DeclaringType.GetGenericArguments() : null;
        var ofMethod = method.IsGenericMethod ? method.GetGenericArguments() : null;
        for (var i = 0; i < code.Length;)
        {
            var value = code[i] == 0xFE ? unchecked((short)(0xFE00 | code[i + 1])) : code[i];
            var op = Codes[value];
            i += op.Size;
            if (op.OperandType is OperandType.InlineField or OperandType.InlineMethod or OperandType.InlineType or OperandType.InlineTok)
            {
                switch (method.Module.ResolveMember(BitConverter.ToInt32(code, i), ofType, ofMethod))
                {
                    case Type type:
                        found.Add(type);
                        break;
                    case MethodInfo called:
                        found.AddRange(
                            called.IsGenericMethod
                                ? called.GetGenericArguments().Append(called.DeclaringType!).Append(called.ReturnType)
                                : [called.DeclaringType!, called.ReturnType]);
                        break;
                    case { DeclaringType: { } owner }:
                        found.Add(owner);
                        break;
                }
            }

            i += op.OperandType switch
            {
                OperandType.InlineNone => 0,
                OperandType.ShortInlineBrTarget or OperandType.ShortInlineI or OperandType.ShortInlineVar => 1,
                OperandType.InlineVar => 2,
                OperandType.InlineI8 or OperandType.InlineR => 8,
                OperandType.InlineSwitch => 4 + 4 * BitConverter.ToInt32(code, i),
                _ => 4,
            };
        }

        return found;
    }
}
