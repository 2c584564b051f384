/** What is seen behind the model and in mirrors where that is not the light itself: backdrops, plates, ground under panoramas. */
package bake.core.outlook;
