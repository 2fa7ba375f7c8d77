//! Embeds the front end anew when it was built anew. Building it is `make`'s business: cargo works without Node.

fn main() {
    println!("cargo:rerun-if-changed=../../web/dist");
}
