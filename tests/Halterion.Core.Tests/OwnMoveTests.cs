using System.Text.Json;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using static Halterion.Core.Tests.Classes;

namespace Halterion.Core.Tests;

/// <summary>Moves of a user's own, beside the library.</summary>
public class OwnMoveTests
{
    [Fact]
    public void All_that_is_said_of_an_own_move_is_read()
    {
        var move = Assert.Single(Read("""
            {"id":"my-mast-squat","name":"Mast squat","family":"squat","aliases":["pole squat"],"plane":"frontal","position":"standing","sided":"oneSided","sideMeans":"hand on the mast",
             "rep":"down and up","tempo":"3-1-1-0","dose":{"kind":"hold","amount":20},"kit":["mast"],"setUp":"a","path":"b","end":"c","breath":"d","faults":[{"seen":"e","fix":"f"}],
             "felt":"g","muscles":"seat","easier":"h","harder":"i","readiness":"j","getIn":"k","kitSafety":"l","cautions":"m","like":"squat","demand":{"balance":0,"grip":3}}
            """));
        Assert.Equal(
            ("Mast squat", Family.Squat, Plane.Frontal, Sided.OneSided, "hand on the mast", "3-1-1-0"),
            (move.Name, move.Family, move.Plane, move.Sided, move.SideMeans, move.Tempo!.Text));
        Assert.Equal(
            "abcdefghijklm",
            $"{move.SetUp}{move.Path}{move.End}{move.Breath}{move.Faults[0].Seen}{move.Faults[0].Fix}{move.Felt}{move.Easier}"
                + $"{move.Harder}{move.Readiness}{move.GetIn}{move.KitSafety}{move.Cautions}");
        Assert.Equal((new UsualDose("hold", 20), "mast", "pole squat"), (move.Dose, move.Kit[0], move.Aliases[0]));
        Assert.Same(Library.Find(new MoveId("squat"))!.Poses, move.Poses);
    }

    [Theory]
    [InlineData(""" "id":"squat" """, "/moves/0/id")]
    [InlineData(""" "id":"My Squat" """, "/moves/0/id")]
    [InlineData(""" "id":"mine","like":"no-such" """, "/moves/0/like")]
    [InlineData(""" "id":"mine","tempo":"0-0-0-0" """, "/moves/0/tempo")]
    [InlineData(""" "id":"mine","demand":{"knee":6} """, "/moves/0/demand/knee")]
    [InlineData(""" "id":"mine","demand":{"knees":2} """, "/moves/0/demand/knees")]
    [InlineData(""" "id":"mine","faults":[{"seen":"x"}] """, "/moves/0/faults/0")]
    [InlineData(""" "id":"mine","kit":["rope",7] """, "/moves/0/kit/1")]
    [InlineData(""" "id":"mine","dose":{"kind":"miles","amount":1} """, "/moves/0/dose/kind")]
    public void What_is_wrong_is_said_at_its_place(string fields, string pointer)
    {
        var (moves, faults) = ClassReader.ReadMoves(JsonElement.Parse($$"""[{"name":"Mine","family":"squat",{{fields}}}]"""), Library);
        Assert.Empty(moves);
        Assert.Contains(pointer, faults.Select(f => f.Pointer));
    }

    [Fact]
    public void Two_own_moves_have_two_ids() => Assert.Contains(
        "/moves/1/id",
        ClassReader.ReadMoves(
            JsonElement.Parse("""[{"id":"mine","name":"A","family":"squat"},{"id":"mine","name":"B","family":"squat"}]"""),
            Library).Faults.Select(f => f.Pointer));

    /// <summary>Tables that speak of a move by name speak of what is like it, too.</summary>
    [Fact]
    public void What_is_like_a_move_asks_as_much_as_it() => Assert.All(Library.Moves, move =>
    {
        var own = Read(
            $$"""{"id":"mine","name":"Mine","family":"hinge","like":"{{move.Id.Value}}"}""")[0] with
        {
            Tempo =
                move.Tempo,
            Kit = move.Kit,
            Dose = move.Dose
        };
        Assert.Equal(Asks(move.Id.Value), DemandModel.Of(own.Id, new Manner(), Library.With([own])));
    });

    [Fact]
    public void A_stated_demand_holds_and_the_manner_changes_it_as_it_changes_the_model()
    {
        var moves = Read(
            """{"id":"a","name":"A","family":"squat","like":"squat","tempo":"2-0-1-0","demand":{"knee":1,"balance":5}}""",
            """{"id":"b","name":"B","family":"squat","demand":{"knee":3}}""",
            """{"id":"c","name":"C","family":"squat"}""");
        var library = Library.With(moves);
        Demand Of(string id, Manner manner) => DemandModel.Of(new MoveId(id), manner, library)!;
        var (plain, half) = (new Manner(), new Manner { Depth = Depth.Half });
        Assert.Equal((1.0, 5.0, Asks("squat").Hip), (Of("a", plain).Knee, Of("a", plain).Balance, Of("a", plain).Hip));
        Assert.Equal(
            DemandModel.Of(new MoveId("squat"), half, Library)!.Knee - Asks("squat").Knee, Of("a", half).Knee - Of("a", plain).Knee, 9);

        // Without a figure there is nothing but what is said; without either, nothing at all.
        Assert.Equal((3.0, 0.0), (Of("b", half).Knee, Of("b", plain).Hip));
        Assert.Null(DemandModel.Of(new MoveId("c"), plain, library));
    }

    [Fact]
    public void Options_are_put_in_order_by_what_is_said()
    {
        const string Stations = """{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"squat"},{"tier":"easier","move":"mine"},{"tier":"harder","move":"goblet-squat"}]}""";
        string[] Codes(int knee) =>
            [.. Good(With(Block("", Stations), $$$"""  "moves":[{"id":"mine","name":"Mine","family":"squat","like":"chair-squat","demand":{"knee":{{{knee}}},"hip":{{{knee}}} } }],""")).Findings.Select(f => f.Code)];
        Assert.DoesNotContain("options.order", Codes(0));
        Assert.Contains("options.order", Codes(5));
    }

    private static Demand Asks(string id) => DemandModel.Of(new MoveId(id), new Manner(), Library)!;

    private static System.Collections.Immutable.ImmutableArray<Move> Read(params string[] moves)
    {
        var (read, faults) = ClassReader.ReadMoves(JsonElement.Parse($"[{string.Join(',', moves)}]"), Library);
        Assert.Empty(faults);
        return read;
    }

    /// <summary>
    /// A file that once opened opens for ever, whatever ids the library takes; in the library itself the shipped one stands.
    /// </summary>
    [Fact]
    public void A_class_keeps_its_own_move_when_the_library_has_taken_its_id()
    {
        const string file = """
            {"format":"halterion-class","version":1,"title":"Mine","slotMinutes":10,
             "moves":[{"id":"squat","name":"The squat of old","family":"squat","dose":{"kind":"reps","amount":7}}],
             "blocks":[{"name":"A","phase":"main","stations":[{"dose":[{"kind":"time","amount":30}],"options":[{"tier":"main","move":"squat"},{"tier":"easier","move":"chair-squat"}]}]}]}
            """;
        var reading = ClassReader.Read(System.Text.Encoding.UTF8.GetBytes(file), Library);
        Assert.Empty(reading.Faults);
        var own = reading.Plan!.Moves.Find(new MoveId("squat"))!;
        Assert.Equal("The squat of old", own.Name);
        Assert.False(reading.Plan.Moves.IsShipped(own.Id));
        Assert.NotEqual("The squat of old", Library.Find(own.Id)!.Name);
        Assert.NotNull(new Evaluator(Library, new Preferences()).Evaluate(file).Evaluation);
        Assert.Equal("A move with the id “squat” exists already.", Assert.Single(ClassReader.ReadMoves(
            JsonElement.Parse("""[{"id":"squat","name":"Mine","family":"squat"}]"""), Library).Faults).Detail);
    }
}
