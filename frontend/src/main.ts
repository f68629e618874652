import { mount } from 'svelte';
import './app.css';
import './looks/look.svelte';
import App from './App.svelte';

const target = document.getElementById('page');
if (!target) throw new Error('the page has no place to draw on');
mount(App, { target });
