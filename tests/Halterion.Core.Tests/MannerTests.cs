using CsCheck;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Whatever a user puts together in an option, there is a body that does it.</summary>
public class MannerTests
{
    /// <summary>Key poses keep off the floor; what is between two odd ones may graze it. The library's own are held to 0.</summary>
    private const double LowestInBetween = -0.06;

    /// <summary>A word, or, half the time, none.</summary>
    private static Gen<T?> Maybe<T>() where T : struct, Enum =>
        from said in Gen.Bool
        from word in Gen.Int[0, Enum.GetValues<T>().Length - 1]
        select said ? Enum.GetValues<T>()[word] : (T?)null;

    private static readonly Gen<Load?> Loads =
        from implement in Maybe<Implement>()
        from count in Gen.Int[1, 2]
        from kilograms in Gen.Int[0, 40]
        from position in Maybe<LoadPosition>()
        from side in Maybe<LoadSide>()
        select implement is null ? null : new Load(implement, count, kilograms == 0 ? null : new Kilograms(kilograms), position, side);

    private static readonly Gen<Manner> Manners =
        from depth in Maybe<Depth>()
        from support in Maybe<Support>()
        from footing in Maybe<Footing>()
        from step in Maybe<StepLength>()
        from trunk in Maybe<TrunkLean>()
        from arms in Maybe<ArmPlace>()
        from surface in Maybe<Surface>()
        from height in Gen.Int[-40, 120]
        from impact in Maybe<Impact>()
        from band in Maybe<BandStrength>()
        from toes in Maybe<Toes>()
        from load in Loads
        select new Manner
        {
            Depth = depth,
            Support = support,
            Base = footing,
            Step = step,
            Trunk = trunk,
            Arms = arms,
            Surface = surface,
            HeightCm = height < 0 ? null : height,
            Impact = impact,
            Band = band,
            Toes = toes,
            Load = load,
        };

    [Fact]
    public void Any_option_of_any_move_is_drawn_and_judged() => Gen.Select(Gen.Int[0, Library.Moves.Length - 1], Manners).Sample(
        (index, manner) =>
        {
            var move = Library.Moves[index];
            var motion = OptionFigure.MotionOf(OptionPoses.Of(move, manner)!);
            for (var i = 0; i <= 8; i++)
            {
                var body = Skeleton.Of(motion.Out(i / 8.0));
                Assert.All(body.All, v => Assert.True(double.IsFinite(v.X + v.Y + v.Z) && v.Length < 3, $"{move.Id} {manner}"));
                Assert.Equal(Anthropometry.Thigh, (body[Joint.RightKnee] - body[Joint.RightHip]).Length, 0.003);
                Assert.Equal(Anthropometry.Shank, (body[Joint.LeftAnkle] - body[Joint.LeftKnee]).Length, 0.003);
                Assert.True(body.All.Min(v => v.Z) > LowestInBetween, $"{move.Id} {manner}: "
                    + $"{Enum.GetValues<Joint>().MinBy(j => body[j].Z)} {body.All.Min(v => v.Z):0.000}");
            }

            var demand = DemandModel.Of(move.Id, manner, Library)!;
            Assert.All(demand.Dimensions, d => Assert.InRange(d.Value, 0, 5));
            Assert.NotEqual("", OptionFigure.Of(move, manner, Library)!.Alt);
            Assert.NotNull(OptionFacts.Of(move, manner, Library));
        },
        iter: 800);
}
