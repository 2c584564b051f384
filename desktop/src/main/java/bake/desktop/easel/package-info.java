/** Where the picture stands, with what lies over it: prints and their wipe, handles of lamps and portals. */
package bake.desktop.easel;
