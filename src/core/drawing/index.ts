export {
  crossLines,
  type FullScale,
  fullScale,
  LAYERS,
  type LayerName,
  type LayoutItem,
  type Marked,
  onLayers,
} from "./fullScale";
export { exaggeration, movedLines } from "./moved";
export { type Picture, type PictureItem, pictureOf } from "./picture";
export { inScene, outlineIn, type Scene, type SceneLine, type SceneOutline, sceneOf } from "./scene";
export { type SolidBody, solidBodies } from "./solidBodies";
export { templatesDrawing } from "./templates";
