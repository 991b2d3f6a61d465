using System.Collections.Frozen;

namespace Pantomet.Core.Texts;

/// <summary>
/// The sentences of the log, without their subject, by the name of what was asked for. Where something is meant, its name follows after a
/// colon.
/// </summary>
public static class ActivityTexts
{
    private static readonly FrozenDictionary<string, string> Sentences = new Dictionary<string, string>
    {
        ["signIn"] = "signed in",
        ["signInFailed"] = "failed to sign in",
        ["signOut"] = "signed out",
        ["signOutEverywhere"] = "signed out everywhere",
        ["makeAccount"] = "made an account by a link",
        ["setPasswordByLink"] = "set a new password by a link",
        ["comeAsGuest"] = "came as a guest",
        ["changePassword"] = "changed the password",
        ["beginTwoStep"] = "began to set up the second step",
        ["confirmTwoStep"] = "switched the second step on",
        ["endTwoStep"] = "switched the second step off",
        ["makeToken"] = "made a token",
        ["revokeToken"] = "revoked a token",
        ["invite"] = "invited somebody",
        ["revokeInvitation"] = "revoked an invitation",
        ["setAccess"] = "changed what roles may",
        ["setRole"] = "changed a role",
        ["removePerson"] = "removed a person",
        ["signPersonOut"] = "ended all sign-ins of a person",
        ["makePasswordLink"] = "made a link for a new password",
        ["inviteGuest"] = "made a link for a guest",
        ["revokeGuestLink"] = "revoked a guest's link",
        ["comment"] = "commented",
        ["resolveComment"] = "resolved a comment",
        ["addPicture"] = "added a picture",
        ["removePicture"] = "removed a picture",
        ["restorePicture"] = "restored a picture",
        ["replaceOriginal"] = "replaced an original",
        ["restoreOriginal"] = "restored an original",
        ["fixOriginal"] = "fixed an original",
        ["replaceDestinations"] = "replaced all rules",
        ["makeDestination"] = "added a destination",
        ["importRules"] = "imported rules",
        ["nameDestination"] = "renamed a destination",
        ["copyDestination"] = "copied a destination",
        ["retireSlots"] = "retired or restored slots",
        ["putSlot"] = "changed the rule of a slot",
        ["putSideFile"] = "added a logo or a font",
        ["deleteSideFile"] = "removed a logo or a font",
        ["putStyle"] = "saved a style",
        ["deleteStyle"] = "removed a style",
        ["createJob"] = "made a job",
        ["copyJob"] = "copied a job",
        ["archiveJob"] = "archived or restored a job",
        ["runJob"] = "started, paused or stopped making files",
        ["remakeFiles"] = "had files made again",
        ["getBundle"] = "downloaded the bundle",
        ["writeFolder"] = "wrote the bundle into a folder",
        ["exportJob"] = "exported a job",
        ["publish"] = "published live links",
        ["unpublish"] = "unpublished live links",
        ["addReceiver"] = "added a receiver",
        ["changeReceiver"] = "changed a receiver",
        ["deleteReceiver"] = "removed a receiver",
        ["tryReceiver"] = "tried the connection to a receiver",
        ["sendToReceiver"] = "delivered to a receiver",
        ["stopReceiverDelivery"] = "stopped a delivery",
        ["trySurvival"] = "tried which files a receiver shows best",
        ["addPageCheck"] = "added a page check",
        ["deletePageCheck"] = "removed a page check",
        ["startPageCheck"] = "measured a page",
        ["stopPageCheck"] = "stopped measuring a page",
        ["makeJobOfPage"] = "made a job of a page",
        ["rewritePageOfJob"] = "rewrote a page",
        ["stopRewritingPage"] = "stopped rewriting a page",
        ["getRewrittenPage"] = "downloaded a rewritten page",
        ["addFolder"] = "added a folder",
        ["deleteFolder"] = "removed a folder",
        ["scanFolder"] = "scanned a folder",
        ["previewFolder"] = "previewed the optimisation of a folder",
        ["optimiseFolder"] = "optimised a folder",
        ["pauseFolder"] = "paused the work in a folder",
        ["stopFolder"] = "stopped the work in a folder",
        ["restoreFolder"] = "restored the pictures of a folder",
        ["getFolderFiles"] = "downloaded a folder",
        ["setStorage"] = "changed how much is kept",
        ["collectUnwanted"] = "deleted unused files",
        ["checkStorage"] = "started the check of all files",
        ["restoreOriginals"] = "restored originals from backups",
        ["makeBackup"] = "started a backup",
        ["stopBackup"] = "stopped a backup",
        ["setBackups"] = "changed the schedule of backups",
        ["returnPicture"] = HistoryTexts.WentBackWithAPicture,
        ["return"] = HistoryTexts.WentBackWithAPicture,
        ["undo"] = HistoryTexts.UndidAStep,
        ["redo"] = HistoryTexts.RedidAStep,
        ["library"] = HistoryTexts.TheLibraryReplacedTheOriginal,
    }.ToFrozenDictionary(StringComparer.Ordinal);

    /// <summary>True when there is a sentence for a request.</summary>
    public static bool Has(string what) => Sentences.ContainsKey(what);

    /// <summary>The sentence.</summary>
    /// <param name="what">The name of the request; one without a sentence stands for itself.</param>
    /// <param name="subject">What it was done to; empty for nothing.</param>
    public static string Sentence(string what, string subject)
    {
        ArgumentNullException.ThrowIfNull(subject);
        var sentence = Sentences.GetValueOrDefault(what, what);
        return subject.Length == 0 ? sentence : $"{sentence}: {subject}";
    }
}
