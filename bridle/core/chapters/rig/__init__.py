"""The rig: joints, loads, supply, drives."""
