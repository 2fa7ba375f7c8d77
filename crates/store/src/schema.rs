//! Tables as Diesel sees them; `migrations/` is where they are made.

diesel::table! {
    account (id) {
        id -> Text,
        login -> Text,
        name -> Text,
        role -> Text,
        password_hash -> Text,
        created_at -> Text,
    }
}

diesel::table! {
    browser_session (key) {
        key -> Text,
        state_json -> Text,
        expires_at_s -> BigInt,
    }
}

diesel::table! {
    setting (key) {
        key -> Text,
        value -> Text,
    }
}

diesel::table! {
    client (id) {
        id -> Text,
        brief_json -> Text,
        name -> Text,
        revision -> Integer,
        created_at -> Text,
        updated_at -> Text,
    }
}

diesel::table! {
    round (id) {
        id -> Text,
        client_id -> Text,
        taken_on -> Text,
        measured_by -> Text,
        weight_kg -> Nullable<Double>,
        tape_revision -> Integer,
        tape_saved_by -> Nullable<Text>,
        tape_saved_at -> Nullable<Text>,
        choices_revision -> Integer,
        created_at -> Text,
    }
}

diesel::table! {
    tape_reading (round_id, site, side, ordinal) {
        round_id -> Text,
        site -> Text,
        side -> Text,
        ordinal -> Integer,
        value_cm -> Double,
    }
}

diesel::table! {
    region_choice (round_id, kind, ordinal) {
        round_id -> Text,
        kind -> Text,
        ordinal -> Integer,
        region -> Text,
        verdict -> Nullable<Text>,
        reason -> Nullable<Text>,
    }
}

diesel::joinable!(round -> client (client_id));
diesel::allow_tables_to_appear_in_same_query!(client, round);
