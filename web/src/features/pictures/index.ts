export { default as PictureChooser } from './components/PictureChooser.vue';
export { default as PictureUpload } from './components/PictureUpload.vue';
