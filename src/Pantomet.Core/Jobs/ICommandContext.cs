using Pantomet.Core.Facts;
using Pantomet.Core.Rules;

namespace Pantomet.Core.Jobs;

/// <summary>What stands in a cell now, as far as decisions ask for it.</summary>
/// <param name="ToReview">The reasons that are to review, by code.</param>
/// <param name="Broken">
/// What the files that break a limit are wanted as, by their identity: the one stays when the program makes them otherwise.
/// </param>
public sealed record CellStanding(IReadOnlyList<string> ToReview, IReadOnlyDictionary<string, string> Broken)
{
    /// <summary>Nothing is known of the cell.</summary>
    public static readonly CellStanding None = new([], new Dictionary<string, string>());
}

/// <summary>What is known around a job while a decision is applied to it: facts and rules, no pixels.</summary>
public interface ICommandContext
{
    /// <summary>A picture of the library; null when it has it not.</summary>
    public PictureFacts? FactsOf(Guid picture);

    /// <summary>A slot of the book of rules by its address; null when it has it not.</summary>
    public Slot? SlotAt(string address);

    /// <summary>Where a slot stands in the book of rules, from 0; unknown ones come last.</summary>
    public int RankOf(string address);

    /// <summary>What stands in a cell now.</summary>
    public CellStanding StandingOf(Guid picture, string address);

    /// <summary>What was decided about a picture in the job that was last made with it: where another job begins.</summary>
    public Decisions MarksOf(Guid picture);
}
