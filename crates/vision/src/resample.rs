//! Pixels at another size.

use fast_image_resize::images::{Image, TypedImageRef};
use fast_image_resize::{PixelTrait, ResizeAlg, ResizeOptions, Resizer};

/// The pixels of a picture at another size, as bytes; sizes are across and down, px.
///
/// The type of the pixels is said at compile time: told at run time, the resizer's kernels of every type are compiled here, which
/// takes minutes.
///
/// # Errors
/// A sentence when there are fewer bytes than pixels.
pub(crate) fn resampled<P: PixelTrait>(
    bytes: &[u8],
    from: (u32, u32),
    to: (u32, u32),
    how: ResizeAlg,
) -> Result<Vec<u8>, String> {
    let source = TypedImageRef::<P>::from_buffer(from.0, from.1, bytes).map_err(|error| error.to_string())?;
    let mut buffer = Image::new(to.0, to.1, P::pixel_type());
    let mut target = buffer.typed_image_mut::<P>().ok_or("the pixels are of another type")?;
    let options = ResizeOptions::new().resize_alg(how);
    Resizer::new().resize_typed(&source, &mut target, &options).map_err(|error| error.to_string())?;
    Ok(buffer.into_vec())
}
