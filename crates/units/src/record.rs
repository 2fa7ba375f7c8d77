//! Ids of what is kept: of people, rounds, plans and pictures. One of another kind does not compile.
//!
//! They are made at random where something is kept first, and say nothing but which one is meant: any text is one, and whether
//! there *is* such a one is for the store to say. Each knows what it is called in the path of an address.
//!
//! ```compile_fail
//! fn of(client: &units::ClientId) {}
//! of(&units::RoundId::from("6f1c"));
//! ```

use crate::id::text_id;

macro_rules! record_id {
    ($($(#[$doc:meta])* $name:ident, $called:literal);+ $(;)?) => {$(
        $(#[$doc])*
        #[derive(
            Clone, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, serde::Serialize, serde::Deserialize,
            schemars::JsonSchema, utoipa::ToSchema, utoipa::IntoParams,
        )]
        #[serde(transparent)]
        #[schemars(with = "String")]
        #[schema(value_type = String)]
        #[into_params(names($called), parameter_in = Path)]
        pub struct $name(String);

        text_id!($name);

        impl From<String> for $name {
            fn from(text: String) -> Self {
                Self(text)
            }
        }

        impl From<&str> for $name {
            fn from(text: &str) -> Self {
                Self(text.to_owned())
            }
        }
    )+};
}

record_id! {
    /// A client of the practice.
    ClientId, "client_id";
    /// A round of a client: a day on which they are measured.
    RoundId, "round_id";
    /// A plan as it was given to a client.
    PlanId, "plan_id";
    /// A picture of a round.
    PhotoId, "photo_id";
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_id_reads_and_writes_as_the_text_it_is() {
        let id = RoundId::from("6f1c");
        assert_eq!(serde_json::to_string(&id).unwrap(), "\"6f1c\"");
        assert_eq!(serde_json::from_str::<RoundId>("\"6f1c\"").unwrap(), id);
        assert_eq!(id.to_string(), "6f1c");
    }
}
