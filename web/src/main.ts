import { createApp } from "vue";
import "vuetify/styles";
import "@fontsource/atkinson-hyperlegible-next/400.css";
import "@fontsource/atkinson-hyperlegible-next/600.css";
import "@fontsource-variable/bitter/index.css";
import "./styles/base.css";
import "./styles/print.css";
import App from "@/shell/App.vue";
import { installPlugins } from "@/plugins";

const app = createApp(App);
installPlugins(app);
app.mount("#app");
