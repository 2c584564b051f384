/** Pictures in and out: textures, panoramas, display pictures, light of scenes. */
package bake.formats.picture;
