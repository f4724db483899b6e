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
export { inScene, outlineIn, type Scene, type SceneLine, type SceneOutline, sceneOf } from "./scene";
