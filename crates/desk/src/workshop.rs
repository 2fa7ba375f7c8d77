//! Threads of their own for searches and proofs: a page that works something out side by side does not wait in line behind them,
//! and where there is too little of the processor for both, the page goes first.

use rayon::{ThreadPool, ThreadPoolBuilder};
use rustix::process::nice;
use std::sync::Arc;

/// By how much these threads stand back; 19 is the most.
const STAND_BACK: i32 = 10;

/// Where searches and proofs are worked on.
#[derive(Clone)]
pub(crate) struct Workshop(Arc<ThreadPool>);

impl Workshop {
    /// One thread for each of the machine's, and one so that a proof, which goes on for long, leaves a search all of them.
    ///
    /// # Errors
    /// When no thread can be started.
    pub fn open() -> Result<Self, std::io::Error> {
        let threads = std::thread::available_parallelism()?.get() + 1;
        let stand_back = |_| {
            // Linux counts it for the thread, not for the program.
            if let Err(why) = nice(STAND_BACK) {
                tracing::warn!(%why, "a thread for searches stands on one step with those for pages");
            }
        };
        let pool = ThreadPoolBuilder::new().num_threads(threads).start_handler(stand_back).build();
        Ok(Self(Arc::new(pool.map_err(std::io::Error::other)?)))
    }

    /// Does work there and waits for it.
    pub fn with<T: Send>(&self, work: impl FnOnce() -> T + Send) -> T {
        self.0.install(work)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn long_work_stands_back_and_pages_do_not() {
        let place = || nice(0).unwrap();
        let before = place();
        let there = Workshop::open().unwrap().with(place);
        assert_eq!((there, place()), ((before + STAND_BACK).min(19), before));
    }
}
