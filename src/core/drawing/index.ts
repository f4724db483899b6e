export { exaggeration, movedLines } from "./moved";
export { inScene, outlineIn, type Scene, type SceneLine, type SceneOutline, sceneOf } from "./scene";
