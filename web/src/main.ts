import { mount } from 'svelte';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import './app.css';
import App from './App.svelte';

document.getElementById('opening')?.remove();
mount(App, { target: document.getElementById('app')! });
