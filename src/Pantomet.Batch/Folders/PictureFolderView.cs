using Pantomet.Batch.Mending;
using Pantomet.Core.Likeness;
using Pantomet.Core.Mending;
using Pantomet.Data.Folders;

namespace Pantomet.Batch.Folders;

/// <summary>A folder of pictures as it stands.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Folder">What people call it: the allowed folder's name and the way from there, or the name of what was dropped.</param>
/// <param name="IsSent">True where its files were sent, and are taken home as a zip.</param>
/// <param name="State">Where it stands.</param>
/// <param name="Mended">True once all of it was optimised by its rule.</param>
/// <param name="Trouble">What went wrong with what was done last: a sentence.</param>
/// <param name="Progress">How far it is; null where nothing is under way.</param>
/// <param name="SecondsLeft">How much longer it takes at this pace; null until that can be told.</param>
/// <param name="Figures">What it comes to; null until it was scanned.</param>
/// <param name="Rule">What its pictures are lightened to.</param>
/// <param name="Trial">What trying some of them came to; null until that was done.</param>
/// <param name="Outcome">What was done to it so far.</param>
public sealed record PictureFolderView(
    Guid Id,
    string Folder,
    bool IsSent,
    PictureFolderState State,
    bool Mended,
    string? Trouble,
    PictureFolderProgress? Progress,
    double? SecondsLeft,
    PictureFolderFigures? Figures,
    PictureFolderRule Rule,
    PictureFolderTrial? Trial,
    PictureFolderOutcome Outcome
);

/// <summary>What was done to a folder of pictures so far.</summary>
/// <param name="Looked">How many pictures were looked at to be optimised.</param>
/// <param name="Mended">How many are lighter.</param>
/// <param name="Before">What those weighed.</param>
/// <param name="After">What they weigh.</param>
/// <param name="Kept">How many originals are kept.</param>
/// <param name="Troubles">How many of those could not be read or written.</param>
/// <param name="InTrouble">How many could not when the folder was scanned, or then.</param>
public sealed record PictureFolderOutcome(int Looked, int Mended, long Before, long After, int Kept, int Troubles, int InTrouble);

/// <summary>Which pictures of a folder are wanted.</summary>
public enum PictureFolderShow
{
    /// <summary>All.</summary>
    All,

    /// <summary>Those of 1 MB and more.</summary>
    Over,

    /// <summary>Those near 1 MB.</summary>
    Near,

    /// <summary>Those that are rotated by tag.</summary>
    OnSide,

    /// <summary>Those that tell where they were taken.</summary>
    Located,

    /// <summary>Those with the ending of another type.</summary>
    Misnamed,

    /// <summary>Those that move.</summary>
    Moving,

    /// <summary>Those that cannot be read or written.</summary>
    Troubles,

    /// <summary>Those that are lighter now, the least alike first.</summary>
    Mended,

    /// <summary>Those that the last preview made, the least alike first.</summary>
    Previewed,
}

/// <summary>Which file of a picture of a folder is meant.</summary>
public enum PictureFolderFile
{
    /// <summary>The one that lies in the folder.</summary>
    Current,

    /// <summary>The original that is kept.</summary>
    Original,

    /// <summary>The one that the last preview made.</summary>
    Previewed,
}

/// <summary>A picture of a folder, and what became of it.</summary>
/// <param name="Picture">As it was when the folder was scanned.</param>
/// <param name="Result">What became of it; null where nothing did.</param>
/// <param name="Preview">What the last preview made of it; null where it was not drawn for that.</param>
/// <param name="Likeness">How the likeness of the file that took its place, or would, is called; null where there is none.</param>
public sealed record PictureFolderPicture(
    SurveyedPicture Picture,
    MendedPicture? Result,
    MendedPicture? Preview = null,
    LikenessWord? Likeness = null
);

/// <summary>A part of a folder's pictures, in the order of the kind that is shown.</summary>
/// <param name="Total">How many there are of the kind.</param>
/// <param name="Pictures">The part.</param>
public sealed record PictureFolderPage(int Total, IReadOnlyList<PictureFolderPicture> Pictures);
