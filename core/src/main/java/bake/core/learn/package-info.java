/**
 * What a picture learns in rounds between its passes of where light comes from: sampling distributions that take noise away and leave the
 * mean.
 */
package bake.core.learn;
