//! What travels: shapes of requests and answers that are not already open files.

mod atlas;
mod client;
mod eye;
mod levers;
mod log;
mod my;
mod notes;
mod photos;
mod plan;
mod practice;
mod review;
mod round;
mod session;
mod set_ups;
mod taking;
mod tests;

pub(crate) use atlas::AtlasView;
pub(crate) use client::{
    AgreedRound, AreaMark, ClientPage, ClientSummary, ClientView, PartName, PutAway, RoundSummary, SaveClient,
    SaveRound, SaveUsualWeek, UnreadableClient, UsualWeekView, VerdictSummary,
};
pub(crate) use eye::{
    AnswerEye, EyeLook, EyePage, EyeSittingView, EyeToldView, KindSkill, OpenSitting, PartSkill, PastSitting,
};
pub(crate) use levers::LeversView;
pub(crate) use log::{
    DoneSession, EntryFate, EntryOutcome, FeelChoice, FormChoice, InsteadView, LastTime, LogEntryView, LogPage,
    PlanInHand, ReportedView, SaveTarget, SendEntries, SentEntries, SessionState, TargetView, TrainingItem,
    TrainingSession, TrainingView,
};
pub(crate) use my::{
    LinkView, MyPage, NewLinkRequest, SharedGirth, SharedPhoto, SharedRegion, SharedSides, SharedView,
};
pub(crate) use notes::{MessagesView, NewMessage, NoteView, ReadMessages, SaveNote};
pub(crate) use photos::{
    AgreementView, BoothQuery, JudgedKind, LightTable, MovedBody, NewPhotoQuery, OutlineView, OverView, PhotoRound,
    PhotoView, RatingQuery, RatingView, RepeatView, RepeatsView, RoundGirths, SavePhoto, SaveRating, SaveRepeat,
    UnseenGirth, WithdrawConsent, Withdrawn,
};
pub(crate) use plan::{
    AddableView, AskSwaps, CopiedWeek, CopyWeek, IssuePlan, IssuedSummary, IssuedView, KeepWeek, KeptWeek, OthersWeek,
    PlanView, ProofView, RefusedView, ReplacedView, SavePlan, SolvePlan, SolvedPlan, SwapsView, WeekSource, WeeksView,
};
pub(crate) use practice::{
    AccuracyView, ActView, ConfirmFactor, DeedView, FactorOffer, LearnedView, MeasurerView, MeasuringPoint, NewPerson,
    OwnPassword, PersonView, PracticeView, RaterView, RecoveryCodes, SaveExercise, SavePerson, SavePractice,
    SettingView, TapeOrder,
};
pub(crate) use review::{
    AreaReviewView, Carry, InLine, LiftTrend, PicturePair, QueueItem, RegionReviewView, RegionTrend, ReviewView,
    SaveReview, SeeTo, SiteTrend, TodaySession, TodayView, TrendMarks, TrendsView,
};
pub(crate) use round::{
    EarlierFold, EarlierValue, NewRoundRequest, RoundView, SaveChoices, SaveTape, StepState, StepView, TapeSheet,
    VerdictView,
};
pub(crate) use session::{NewOwner, SessionStanding, SessionView, SignIn};
pub(crate) use set_ups::{SetUpView, SetUpsView};
pub(crate) use taking::{AskAgain, AskedAgain, Ghost, LookQuery, PicturesAsked, PoseAsked};
pub(crate) use tests::{FirstSide, SaveTests, TestsSheet};
