// The web application's entry.
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import './design'
import { router } from './router'

createApp(App).use(createPinia()).use(router).mount('#app')
