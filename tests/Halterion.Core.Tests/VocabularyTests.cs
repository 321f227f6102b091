using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Tests;

/// <summary>The words stand once in the program; the published schema and the sentences must follow from them.</summary>
public sealed class VocabularyTests
{
    private static readonly JsonNode Schema = PublishedSchema.Class()["$defs"]!;

    private static void Same<T>(string within, params string[] fields) where T : struct, Enum => Assert.All(fields, field =>
    {
        var property = Schema[within]!["properties"]![field]!;
        var words = (property["enum"] ?? property["oneOf"]![0]!["enum"])!.AsArray().Select(w => (string)w!);
        Assert.Equal(WordsOf<T>.Names.Order(), words.Order());
    });

    [Fact]
    public void The_words_of_the_schema_are_those_of_the_program()
    {
        foreach (var holder in new[] { "PlanOption", "PlanManner" })
        {
            Same<Depth>(holder, "depth");
            Same<Support>(holder, "support");
            Same<Footing>(holder, "base");
            Same<Toes>(holder, "toes");
            Same<StepLength>(holder, "step");
            Same<TrunkLean>(holder, "trunk");
            Same<ArmPlace>(holder, "arms");
            Same<Surface>(holder, "surface");
            Same<Impact>(holder, "impact");
            Same<BandStrength>(holder, "band");
            Same<Grip>(holder, "grip");
        }

        Same<Implement>("PlanLoad", "implement");
        Same<LoadPosition>("PlanLoad", "position");
        Same<LoadSide>("PlanLoad", "side");
        Same<Tier>("PlanOption", "tier");
        Same<SideRule>("PlanOption", "sides");
        Same<Phase>("PlanBlock", "phase");
        Same<Gate>("PlanBlock", "gate");
        Same<Keep>("PlanBlock", "keep");
        Same<SidePass>("PlanBlock", "sidePass");
        Same<RecoveryIn>("PlanBlock", "recoveryIn");
        Same<Counting>("PlanBlock", "count");
        Same<PartKind>("PlanPart", "kind");
        Same<Side>("PlanPart", "side");
        Same<RepStyle>("PlanPart", "style");
        Same<Viewpoint>("PlanStation", "view");
        Same<Aim>("ClassPlan", "aim");
        Same<Facing>("ClassPlan", "facing");
        Same<WarmUp>("ClassPlan", "warmUp");
        Same<Family>("PlanMove", "family");
        Same<Plane>("PlanMove", "plane");
        Same<Position>("PlanMove", "position");
        Same<Sided>("PlanMove", "sided");
    }

    /// <summary>
    /// A word that is written and not said is lost to the one who reads the card: all but "none" are said, and each differently.
    /// </summary>
    [Fact]
    public void Every_word_of_an_option_is_said()
    {
        var plain = Say(new Manner());
        void Said<T>(Func<T, Manner> manner) where T : struct, Enum
        {
            var said = Enum.GetValues<T>().Where(w => w.ToString() != "None").Select(w => Say(manner(w))).ToArray();
            Assert.DoesNotContain(plain, said);
            Assert.Equal(said.Length, said.Distinct().Count());
        }

        Said<Depth>(w => new Manner { Depth = w });
        Said<Support>(w => new Manner { Support = w });
        Said<Footing>(w => new Manner { Base = w });
        Said<Toes>(w => new Manner { Toes = w });
        Said<StepLength>(w => new Manner { Step = w });
        Said<TrunkLean>(w => new Manner { Trunk = w });
        Said<ArmPlace>(w => new Manner { Arms = w });
        Said<Surface>(w => new Manner { Surface = w });
        Said<Impact>(w => new Manner { Impact = w });
        Said<BandStrength>(w => new Manner { Band = w });
        Said<Grip>(w => new Manner { Grip = w });
        Said<Implement>(w => new Manner { Load = new Load(w, null, null, null, null) });
        Said<LoadPosition>(w => new Manner { Load = new Load(Implement.Dumbbell, 1, new Kilograms(6), w, null) });
        Said<LoadSide>(w => new Manner { Load = new Load(Implement.Dumbbell, 1, new Kilograms(6), null, w) });
    }

    private static string Say(Manner manner) => PlanWords.Option(
        new Option(new PlaceId("o1"), Tier.Main, new MoveId("squat"), manner, ImmutableSortedDictionary<int, PartManner>.Empty,
            null), Classes.Library, new Preferences());
}
