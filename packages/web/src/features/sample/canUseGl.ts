/** Whether this browser draws with WebGL 2 and can filter float textures. */
export function canUseGl(): boolean {
  const gl = document.createElement('canvas').getContext('webgl2');
  return !!gl && !!gl.getExtension('OES_texture_float_linear');
}
